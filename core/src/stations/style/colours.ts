import { KERNELS } from '../../kernels/kernels.ts';
import { type Band, bandParts } from '../../raster/band.ts';
import { Raster } from '../../raster/raster.ts';
import type { Sides } from '../../raster/sides.ts';
import type { Sharing } from '../../team/context.ts';
import { eachBand } from '../../team/in-bands.ts';
import { task } from '../../team/task.ts';

/** Rows between two pauses. */
const ROWS = 64;

/** Ways between linear RGB and OKLab: some rows of three planes, into planes as long. */
const WAYS = {
  lab(rows: Float32Array[], into: Float32Array[]) {
    for (const [c, plane] of KERNELS.oklabPlanes(rows).entries()) into[c].set(plane);
  },
  linear: (rows: Float32Array[], into: Float32Array[]) => KERNELS.oklabToRgb(rows, into),
};

/** Colours of rows brought to OKLab or to linear RGB, in their places in planes that all of a team see. */
export const colourBand = task(
  'colourBand',
  async (
    checkpoint,
    planes: Float32Array[],
    to: keyof typeof WAYS,
    width: number,
    into: Float32Array[],
    band: Band,
  ): Promise<void> => {
    for (const part of bandParts(band, ROWS)) {
      const rows = (plane: Float32Array) => plane.subarray(part.from * width, part.to * width);
      WAYS[to](planes.map(rows), into.map(rows));
      await checkpoint((part.to - band.from) / (band.to - band.from));
    }
  },
);

async function brought(
  planes: readonly Float32Array[],
  to: keyof typeof WAYS,
  { width, height }: Sides,
  context: Sharing,
): Promise<Float32Array[]> {
  const shared = planes.slice(0, 3).map((plane) => context.team.shared(plane));
  const into = shared.map(() => context.team.take(width * height));
  await eachBand(colourBand, [shared, to, width, into], height, context);
  return into;
}

/** L, a and b of a picture in linear RGB (see `linearToOklab`), in memory that all of a team see. */
export const toLab = (picture: Raster, context: Sharing): Promise<Float32Array[]> =>
  brought(picture.planes, 'lab', picture, context);

/** A picture in linear RGB 0..1 of planes of OKLab (see `oklabToRgb`), in memory that all of a team see. */
export const toLinear = async (
  lab: readonly Float32Array[],
  { width, height }: Sides,
  context: Sharing,
): Promise<Raster> => new Raster(width, height, await brought(lab, 'linear', { width, height }, context));
