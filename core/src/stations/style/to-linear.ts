import { KERNELS } from '../../kernels/kernels.ts';
import { type Band, bandParts } from '../../raster/band.ts';
import { Raster } from '../../raster/raster.ts';
import type { Sides } from '../../raster/sides.ts';
import type { Sharing } from '../../team/context.ts';
import { eachBand } from '../../team/in-bands.ts';
import { task } from '../../team/task.ts';

/** Rows between two pauses. */
const ROWS = 64;

/** Linear RGB of rows of OKLab (see `oklabToRgb`), in their places in planes that all of a team see. */
export const linearBand = task(
  'linearBand',
  async (
    checkpoint,
    planes: Float32Array[],
    width: number,
    into: Float32Array[],
    band: Band,
  ): Promise<void> => {
    for (const { from, to } of bandParts(band, ROWS)) {
      const rows = (plane: Float32Array) => plane.subarray(from * width, to * width);
      KERNELS.oklabToRgb(planes.map(rows), into.map(rows));
      await checkpoint((to - band.from) / (band.to - band.from));
    }
  },
);

/** A picture in linear RGB 0..1 of planes of OKLab, in memory that all of a team see. */
export async function toLinear(
  lab: readonly Float32Array[],
  { width, height }: Sides,
  context: Sharing,
): Promise<Raster> {
  const planes = lab.slice(0, 3).map((plane) => context.team.shared(plane));
  const into = planes.map(() => context.team.take(width * height));
  await eachBand(linearBand, [planes, width, into], height, context);
  return new Raster(width, height, into);
}
