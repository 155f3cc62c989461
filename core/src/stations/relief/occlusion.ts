import type { Direction, Looking } from '../../kernels/horizon/reference.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import { PLANES } from '../../memory/pool.ts';
import { summing } from '../../planes/summing.ts';
import type { Band } from '../../raster/band.ts';
import type { Edges } from '../../raster/edges.ts';
import { type GivenOf, task } from '../../team/task.ts';
import { ALONE, type Team } from '../../team/team.ts';
import { runSteps } from '../../work/steps.ts';

const HALF_TURN = (Math.atan(0.5) * 180) / Math.PI;

/** Degrees half-way to the neighbouring directions, by the steepness of a direction. */
const SHARES = new Map([
  [0, HALF_TURN],
  [0.5, 22.5],
  [1, 45 - HALF_TURN],
]);

/** Both ways along each of these slopes. */
const along = (slopes: number[]): Direction[] =>
  ([-1, 1] as const).flatMap((down) =>
    slopes.map((slope) => ({ down, slope, share: SHARES.get(Math.abs(slope))! / 360 })),
  );

/** Sixteen directions, none falling between pixels for long. */
const UPRIGHT = along([-1, -0.5, 0, 0.5, 1]);
/** Of the field turned over its diagonal, on which the diagonals are the same. */
const TURNED = along([-0.5, 0, 0.5]);

/** The share of sky that a band of rows sees along some directions. */
export const sweepTask = task('sweep', (_checkpoint, ...given: Parameters<typeof KERNELS.sweepHorizons>) =>
  KERNELS.sweepHorizons(...given),
);

/** Rows that are made at once: others get their turn between. */
const ROWS = 64;

/**
 * Ambient visibility 0..1 of a height field: mean over sixteen directions of cos² of the horizon, the
 * cosine-weighted share of the sky that a level receiver sees, exact within the radius. `height`
 * in pixels of the same scale as the plane (`size` × `size`), `radius` in pixels, at most half the tile. `bias`
 * is taken off the tangent of every horizon.
 */
export async function visibility(
  height: Float32Array,
  size: number,
  radius: number,
  edges: Edges,
  checkpoint: (done: number) => Promise<void>,
  bias = 0,
  team: Team = ALONE,
): Promise<Float32Array> {
  const reach = Math.min(size / 2, Math.max(1, radius));
  const bands = Array.from({ length: Math.ceil(size / ROWS) }, (_, k): Band => {
    const from = ROWS * k;
    return { from, to: Math.min(size, from + ROWS) };
  });
  const look = (field: Float32Array) => ({ field: team.shared(field), seen: PLANES.take(field.length) });
  const upright = look(height);
  await checkpoint(0);
  const turned = look(KERNELS.transposePlane(height, size, size));
  await checkpoint(0);
  const looks: { of: typeof upright; how: Looking }[] = [
    { of: upright, how: { directions: UPRIGHT, radius: reach, bias, edges } },
    { of: turned, how: { directions: TURNED, radius: reach, bias, edges: { x: edges.y, y: edges.x } } },
  ];
  const parts = looks.flatMap(({ of, how }) => bands.map((band) => ({ of, how, band })));
  await team.each(
    sweepTask,
    parts.map(({ of, how, band }): GivenOf<typeof sweepTask> => [of.field, size, how, band]),
    (made, k) => {
      parts[k].of.seen.set(made, size * parts[k].band.from);
      PLANES.give(made);
    },
    checkpoint,
  );
  const back = KERNELS.transposePlane(turned.seen, size, size);
  PLANES.give(turned.seen);
  await checkpoint(1);
  const out = await runSteps(summing([upright.seen, back], [1, 1], {}, upright.seen), checkpoint);
  PLANES.give(back);
  return out;
}
