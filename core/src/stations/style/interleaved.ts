import type { Band } from '../../raster/band.ts';
import { type Edges, edgeTable } from '../../raster/edges.ts';
import type { Sides } from '../../raster/sides.ts';

/** Planes as pixels of values one after another, into an array of that length. */
export function interleave(planes: readonly Float32Array[], out: Float32Array): Float32Array {
  const count = planes.length;
  for (const [c, plane] of planes.entries()) {
    for (let i = 0, at = c; i < plane.length; i++, at += count) out[at] = plane[i];
  }
  return out;
}

/** One of `count` values of each pixel, as a plane. */
export function planeOf(pixels: Float32Array, c: number, count: number): Float32Array {
  const plane = new Float32Array(pixels.length / count);
  for (let i = 0, at = c; i < plane.length; i++, at += count) plane[i] = pixels[at];
  return plane;
}

/** Rows of pixels of `count` values each, with `pad` more pixels on every side as the edges have it. */
export function padded(
  pixels: Float32Array,
  count: number,
  { width, height }: Sides,
  edges: Edges,
  { from, to }: Band,
  pad: number,
): Float32Array {
  const columns = edgeTable(width, pad, pad, edges.x);
  const rows = edgeTable(height, pad, pad, edges.y);
  const stride = count * (width + 2 * pad);
  const out = new Float32Array(stride * (to - from + 2 * pad));
  const copy = (column: number, row: number, at: number) => {
    const source = row + count * columns[column];
    for (let c = 0; c < count; c++) out[at + c] = pixels[source + c];
  };
  for (let y = from; y < to + 2 * pad; y++) {
    const row = rows[y] * width * count;
    const start = (y - from) * stride;
    out.set(pixels.subarray(row, row + width * count), start + pad * count);
    for (let x = 0; x < pad; x++) copy(x, row, start + x * count);
    for (let x = pad + width; x < columns.length; x++) copy(x, row, start + x * count);
  }
  return out;
}
