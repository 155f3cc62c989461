import { blurPlanes } from '../../filters/blur-planes.ts';
import type { Field } from '../../filters/gaussian.ts';
import type { Band } from '../../raster/band.ts';
import type { Sharing } from '../../team/context.ts';
import { eachBand } from '../../team/in-bands.ts';
import { task } from '../../team/task.ts';

/** Sums of the squares of planes, in the places of some rows. */
export const squaresBand = task(
  'squaresBand',
  (_checkpoint, [L, a, b]: Float32Array[], width: number, into: Float32Array, band: Band): void => {
    for (let i = band.from * width; i < band.to * width; i++) {
      into[i] = L[i] * L[i] + a[i] * a[i] + b[i] * b[i];
    }
  },
);

/** Standard deviations by means of planes and of their squares, written over the latter, in the places of some rows. */
export const deviationBand = task(
  'deviationBand',
  (_checkpoint, [L, a, b]: Float32Array[], width: number, squares: Float32Array, band: Band): void => {
    for (let i = band.from * width; i < band.to * width; i++) {
      squares[i] = Math.sqrt(Math.max(0, squares[i] - L[i] * L[i] - a[i] * a[i] - b[i] * b[i]));
    }
  },
);

/** Standard deviation of OKLab colours about each pixel, all three together. `sigma` in pixels. */
export async function localContrast(
  lab: readonly Float32Array[],
  field: Field,
  sigma: number,
  context: Sharing,
): Promise<Float32Array> {
  const { width, height } = field;
  const planes = lab.slice(0, 3).map((plane) => context.team.shared(plane));
  const squares = context.team.take(width * height);
  await eachBand(squaresBand, [planes, width, squares], height, context);
  const blurs = [...planes, squares].map((plane) => ({ plane, sigma }));
  const [L, a, b, ofSquares] = await blurPlanes(blurs, field, context);
  await eachBand(deviationBand, [[L, a, b], width, ofSquares], height, context);
  context.team.give(squares, L, a, b);
  return ofSquares;
}
