import { KERNELS } from '../../kernels/kernels.ts';
import { type Band, bandParts } from '../../raster/band.ts';
import type { Raster } from '../../raster/raster.ts';
import type { Sharing } from '../../team/context.ts';
import { eachBand } from '../../team/in-bands.ts';
import { task } from '../../team/task.ts';

/** Rows between two pauses. */
const ROWS = 64;

/** OKLab of rows of linear RGB, in their places in planes that all of a team see. */
export const labBand = task(
  'labBand',
  async (
    checkpoint,
    planes: Float32Array[],
    width: number,
    into: Float32Array[],
    band: Band,
  ): Promise<void> => {
    for (const { from, to } of bandParts(band, ROWS)) {
      const rows = planes.map((plane) => plane.subarray(from * width, to * width));
      for (const [c, plane] of KERNELS.oklabPlanes(rows).entries()) into[c].set(plane, from * width);
      await checkpoint((to - band.from) / (band.to - band.from));
    }
  },
);

/** L, a and b of a picture in linear RGB (see `linearToOklab`), in memory that all of a team see. */
export async function toLab({ planes, width, height }: Raster, context: Sharing): Promise<Float32Array[]> {
  const shared = planes.slice(0, 3).map((plane) => context.team.shared(plane));
  const into = shared.map(() => context.team.take(width * height));
  await eachBand(labBand, [shared, width, into], height, context);
  return into;
}
