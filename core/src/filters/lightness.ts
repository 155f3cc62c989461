import { KERNELS } from '../kernels/kernels.ts';
import { PLANES } from '../memory/pool.ts';
import { type Band, bandParts } from '../raster/band.ts';
import type { Raster } from '../raster/raster.ts';
import type { Sharing } from '../team/context.ts';
import { eachBand } from '../team/in-bands.ts';
import { task } from '../team/task.ts';

/** Values between two pauses, which are worth a task of their own. */
const PART = 2 ** 16;

/** Lightness of the pixels from one place to another, into a plane that all of a team see. */
export const lightnessBand = task(
  'lightnessBand',
  async (checkpoint, planes: Float32Array[], out: Float32Array, band: Band): Promise<void> => {
    for (const { from, to } of bandParts(band, PART)) {
      const [lightness, ...colours] = KERNELS.oklabPlanes(planes.map((plane) => plane.subarray(from, to)));
      out.set(lightness, from);
      PLANES.give(lightness, ...colours);
      await checkpoint((to - band.from) / (band.to - band.from));
    }
  },
);

/** Lightness of a picture in linear RGB as the eye has it, 0..1, by all of a team: L of OKLab (Ottosson 2020). */
export async function lightnessOf({ planes }: Raster, sharing: Sharing): Promise<Float32Array> {
  const { team } = sharing;
  const seen = planes.map((plane) => team.shared(plane));
  const out = team.take(planes[0].length);
  await eachBand(lightnessBand, [seen, out], out.length, sharing, PART);
  for (const [k, plane] of seen.entries()) if (plane !== planes[k]) team.give(plane);
  return out;
}
