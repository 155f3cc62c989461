import { type Edges, edgeIndex } from '../../raster/edges.ts';
import { PHASES, type PhaseTable } from '../../raster/phases.ts';
import type { Raster } from '../../raster/raster.ts';

/** One row `y` of `out`, whose pixels lie at (`xs`, `ys`) in the picture. */
export type RowResampler = (
  out: Raster,
  y: number,
  xs: Float64Array,
  ys: Float64Array,
  table: PhaseTable,
) => void;

/** Sum of the `taps` × `taps` samples of a plane whose first lies at `from`, weighed by `wx` and `wy`. */
function gather(
  plane: Float32Array,
  from: number,
  stride: number,
  taps: number,
  weights: Float64Array,
  wx: number,
  wy: number,
): number {
  let sum = 0;
  for (let j = 0; j < taps; j++) {
    let line = 0;
    for (let i = 0; i < taps; i++) line += plane[from + i] * weights[wx + i];
    sum += line * weights[wy + j];
    from += stride;
  }
  return sum;
}

/** The pixels of a row, or only those that reach beyond the picture. */
export function resampleRow(
  raster: Raster,
  edges: Edges,
  out: Raster,
  y: number,
  xs: Float64Array,
  ys: Float64Array,
  table: PhaseTable,
  onlyBeyond: boolean,
): void {
  const { taps, before, weights } = table;
  const { width, height, planes } = raster;
  const patch = new Float32Array(taps * taps);
  for (let x = 0; x < out.width; x++) {
    const left = Math.floor(xs[x]);
    const top = Math.floor(ys[x]);
    const x0 = left - before;
    const y0 = top - before;
    const inside = x0 >= 0 && y0 >= 0 && x0 + taps <= width && y0 + taps <= height;
    if (inside && onlyBeyond) continue;
    const wx = Math.floor((xs[x] - left) * PHASES) * taps;
    const wy = Math.floor((ys[x] - top) * PHASES) * taps;
    for (let c = 0; c < planes.length; c++) {
      const plane = planes[c];
      let value: number;
      if (inside) {
        value = gather(plane, y0 * width + x0, width, taps, weights, wx, wy);
      } else {
        for (let j = 0; j < taps; j++) {
          const row = edgeIndex(y0 + j, height, edges.y) * width;
          for (let i = 0; i < taps; i++) patch[j * taps + i] = plane[row + edgeIndex(x0 + i, width, edges.x)];
        }
        value = gather(patch, 0, taps, taps, weights, wx, wy);
      }
      out.planes[c][y * out.width + x] = value;
    }
  }
}

/** Resamples a picture row by row, at any places. */
export const rowResampler =
  (raster: Raster, edges: Edges): RowResampler =>
  (out, y, xs, ys, table) =>
    resampleRow(raster, edges, out, y, xs, ys, table, false);

export const reference = { rowResampler };
