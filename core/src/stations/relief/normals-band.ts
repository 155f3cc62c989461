import { KERNELS } from '../../kernels/kernels.ts';
import type { NormalY } from '../../kernels/normals/reference.ts';
import type { Band } from '../../raster/band.ts';
import type { Edges } from '../../raster/edges.ts';
import type { GradientKernel } from '../../raster/gradient.ts';
import { Raster } from '../../raster/raster.ts';
import type { Sharing } from '../../team/context.ts';
import { eachBand } from '../../team/in-bands.ts';
import { task } from '../../team/task.ts';
import { runSteps } from '../../work/steps.ts';

/** Rows that are worth a task of their own. */
const LEAST_ROWS = 64;

/** How normals are made of a height (see `makingNormals`). */
export interface NormalsHow {
  width: number;
  height: number;
  edges: Edges;
  depthShare: number;
  strength: number;
  kernel: GradientKernel;
  normalY: NormalY;
}

/** Normals of some rows of a height, in their place; where others are given, with their slopes added. */
export const normalsBand = task(
  'normalsBand',
  async (
    checkpoint,
    field: Float32Array,
    base: Float32Array[] | null,
    { width, height, edges, depthShare, strength, kernel, normalY }: NormalsHow,
    into: Float32Array[],
    rows: Band,
  ): Promise<void> => {
    const out = new Raster(width, height, into);
    const sides = { width, height };
    await runSteps(
      KERNELS.makingNormals(field, sides, depthShare, strength, kernel, normalY, edges, rows, out),
      checkpoint,
    );
    if (!base) return;
    const [under, made] = [base, into].map((planes) =>
      planes.map((plane) => plane.subarray(rows.from * width, rows.to * width)),
    );
    KERNELS.addSlopes(under, made);
  },
);

/** Normals of a height by all of a team; with the slopes of `base` added where that is given. Planes that all of it see. */
export async function normalsByTeam(
  field: Float32Array,
  base: Raster | null,
  how: NormalsHow,
  sharing: Sharing,
): Promise<Raster> {
  const { team } = sharing;
  const into = [0, 1, 2].map(() => team.take(field.length));
  const shared = team.shared(field);
  const under = base?.planes.map((plane) => team.shared(plane)) ?? null;
  await eachBand(normalsBand, [shared, under, how, into], how.height, sharing, LEAST_ROWS);
  for (const [k, plane] of (under ?? []).entries()) if (plane !== base?.planes[k]) team.give(plane);
  if (shared !== field) team.give(shared);
  return new Raster(how.width, how.height, into);
}
