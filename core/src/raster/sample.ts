import { KERNELS } from '../kernels/kernels.ts';
import { type Edges, edgeIndex } from './edges.ts';
import { type PhaseTable, phaseTable } from './phases.ts';
import { Raster } from './raster.ts';
import { resampleUpright } from './resize.ts';

/** Bilinear value of a plane at (x, y), in pixels with whole numbers at pixel centres. */
export function sampleBilinear(
  plane: Float32Array,
  width: number,
  height: number,
  x: number,
  y: number,
  edges: Edges,
): number {
  const x0 = Math.floor(x);
  const y0 = Math.floor(y);
  const fx = x - x0;
  const fy = y - y0;
  const xa = edgeIndex(x0, width, edges.x);
  const xb = edgeIndex(x0 + 1, width, edges.x);
  const ya = edgeIndex(y0, height, edges.y) * width;
  const yb = edgeIndex(y0 + 1, height, edges.y) * width;
  const top = plane[ya + xa] * (1 - fx) + plane[ya + xb] * fx;
  const bottom = plane[yb + xa] * (1 - fx) + plane[yb + xb] * fx;
  return top * (1 - fy) + bottom * fy;
}

/** Where output pixel (0, 0) lies in the input, and the step for one pixel right and one down. */
export interface Affine {
  originX: number;
  originY: number;
  rightX: number;
  rightY: number;
  downX: number;
  downY: number;
}

/** Says where the pixels of output row `y` lie in the input, whole numbers at pixel centres. */
export type Place = (y: number, xs: Float64Array, ys: Float64Array) => void;

/** Steps between the stretches for which tables are made, per doubling. */
const STRETCH_STEPS = 4;

const apart = (xs: Float64Array, ys: Float64Array, i: number, j: number, xs2 = xs, ys2 = ys) =>
  Math.hypot(xs2[j] - xs[i], ys2[j] - ys[i]);

/**
 * Resample a raster at any places, one pass, Lanczos of three lobes, stretched row by row to the widest
 * step between neighbouring places (never below 1), so that nothing aliases. `breathe` is awaited
 * between blocks of rows.
 */
export async function resampleField(
  raster: Raster,
  width: number,
  height: number,
  place: Place,
  edges: Edges,
  breathe: (done: number) => Promise<void>,
): Promise<Raster> {
  const out = Raster.filled(width, height, raster.channels);
  const tables = new Map<number, PhaseTable>();
  const resample = KERNELS.rowResampler(raster, edges);
  let [xs, ys, nextXs, nextYs] = Array.from({ length: 4 }, () => new Float64Array(width));
  place(0, xs, ys);
  for (let y = 0; y < height; y++) {
    if ((y & 31) === 0) await breathe(y / height);
    // The last row has the step of the row before it.
    place(y + 1 < height ? y + 1 : Math.max(0, y - 1), nextXs, nextYs);
    let widest = 1;
    for (let x = 0; x < width; x += 8) {
      if (x + 1 < width) widest = Math.max(widest, apart(xs, ys, x, x + 1));
      widest = Math.max(widest, apart(xs, ys, x, x, nextXs, nextYs));
    }
    // A step that is wide by rounding alone is none.
    const step = Math.round(Math.log2(widest) * STRETCH_STEPS);
    let table = tables.get(step);
    if (!table) {
      table = phaseTable(2 ** (step / STRETCH_STEPS));
      tables.set(step, table);
    }
    resample(out, y, xs, ys, table);
    if (y + 1 < height) [xs, ys, nextXs, nextYs] = [nextXs, nextYs, xs, ys];
  }
  return out;
}

/**
 * Resample a raster along an affine grid, one pass, Lanczos of three lobes stretched by `stretch`
 * (≥ 1 when the grid is coarser than the picture, so that nothing aliases).
 * `breathe` is awaited between blocks of rows.
 */
export async function resampleAffine(
  raster: Raster,
  width: number,
  height: number,
  grid: Affine,
  stretch: number,
  edges: Edges,
  breathe: (done: number) => Promise<void>,
): Promise<Raster> {
  const { originX, originY, rightX, rightY, downX, downY } = grid;
  if (rightY === 0 && downX === 0) {
    await breathe(0);
    return resampleUpright(
      raster,
      { originX, originY, stepX: rightX, stepY: downY, width, height },
      stretch,
      edges,
    );
  }
  const out = Raster.filled(width, height, raster.channels);
  const table = phaseTable(Math.max(1, stretch));
  const resample = KERNELS.rowResampler(raster, edges);
  const xs = new Float64Array(width);
  const ys = new Float64Array(width);
  for (let y = 0; y < height; y++) {
    if ((y & 31) === 0) await breathe(y / height);
    for (let x = 0; x < width; x++) {
      xs[x] = originX + x * rightX + y * downX;
      ys[x] = originY + x * rightY + y * downY;
    }
    resample(out, y, xs, ys, table);
  }
  return out;
}
