import { KERNELS } from '../../kernels/kernels.ts';
import type { Edges } from '../../raster/edges.ts';
import type { Given } from '../../team/tasks.ts';
import { ALONE, type Team } from '../../team/team.ts';
import { type Direction, inParts, walked } from './sweep.ts';

interface Sweep extends Direction {
  /** Work on the transposed field. */
  turned: boolean;
  /** Degrees of the sky this direction stands for. */
  share: number;
}

const HALF_TURN = (Math.atan(0.5) * 180) / Math.PI;

/** Degrees half-way to the neighbouring directions, by the steepness of a direction. */
const SHARES = new Map([
  [0, HALF_TURN],
  [0.5, 22.5],
  [1, 45 - HALF_TURN],
]);

/** Up to this size a direction is walked at once. */
const WHOLE = 512;
/** Up to this one, which previews reach, in parts, so that others get their turn; beyond it nobody waits, and parts cost. */
const IN_PARTS = 1024;
const PARTS = 4;

/** Sixteen directions, each one step on its major axis, none falling between pixels for long. */
const SWEEPS: Sweep[] = [false, true].flatMap((turned) =>
  [false, true].flatMap((back) =>
    // The diagonals belong to one orientation only, so that none is walked twice.
    (turned ? [-0.5, 0, 0.5] : [-1, -0.5, 0, 0.5, 1]).map((slope) => ({
      slope,
      back,
      turned,
      share: SHARES.get(Math.abs(slope))! / 360,
    })),
  ),
);

/**
 * Ambient visibility 0..1 of a height field: mean over sixteen directions of cos² of the horizon, the
 * cosine-weighted share of the sky that a level receiver sees. Line sweep with convex hulls (after
 * Timonen & Westerholm 2010, exact within the radius), cost all but independent of the radius. `height`
 * in pixels of the same scale as the plane (`size` × `size`), `radius` in pixels, at most half the tile. `bias`
 * is taken off the tangent of every horizon.
 */
export async function visibility(
  height: Float32Array,
  size: number,
  radius: number,
  edges: Edges,
  breathe: (done: number) => Promise<void>,
  bias = 0,
  team: Team = ALONE,
): Promise<Float32Array> {
  const reach = Math.min(size / 2, Math.max(1, radius));
  const fields = [height, KERNELS.transposePlane(height, size, size)].map((plane) => team.shared(plane));
  const parts = SWEEPS.flatMap((one) => {
    const lines = walked(size, one, reach, one.turned ? { x: edges.y, y: edges.x } : edges);
    return inParts(lines, size > WHOLE && size <= IN_PARTS ? PARTS : 1).map((part) => ({ one, part }));
  });
  const upright = new Float32Array(height.length);
  const turned = new Float32Array(height.length);
  // Added up in one order, so that it comes out the same whoever made them.
  const take = (seen: Float32Array, k: number) => {
    const sum = parts[k].one.turned ? turned : upright;
    KERNELS.sumPlanes([sum, seen], [1, 1], {}, sum);
  };
  const tasks = parts.map(
    ({ one, part }): Given<'sweepHorizons'> => [fields[Number(one.turned)], size, part, bias, one.share],
  );
  await team.each('sweepHorizons', tasks, take, breathe);
  const back = KERNELS.transposePlane(turned, size, size);
  return KERNELS.sumPlanes([upright, back], [1, 1], {}, upright);
}
