import { PLANES } from '../../memory/pool.ts';
import type { Band } from '../../raster/band.ts';
import { type Edges, edgeTable } from '../../raster/edges.ts';
import type { Sides } from '../../raster/sides.ts';
import type { Sharing } from '../../team/context.ts';
import { eachBand } from '../../team/in-bands.ts';
import { task } from '../../team/task.ts';

/** Rows of a plane as one of the four values of each pixel, in their place. */
export const channelBand = task(
  'channelBand',
  (_checkpoint, plane: Float32Array, c: number, width: number, out: Float32Array, band: Band): void => {
    for (let i = band.from * width, at = 4 * i + c; i < band.to * width; i++, at += 4) out[at] = plane[i];
  },
);

/** Rows of pixels of four values as planes, in their places there. */
export const planesBand = task(
  'planesBand',
  (_checkpoint, pixels: Float32Array, width: number, out: Float32Array[], band: Band): void => {
    const [p, q, r, s] = out;
    for (let i = band.from * width, at = 4 * i; i < band.to * width; i++, at += 4) {
      p[i] = pixels[at];
      q[i] = pixels[at + 1];
      r[i] = pixels[at + 2];
      s[i] = pixels[at + 3];
    }
  },
);

/** The four values of each pixel as planes that all of a team see. */
export async function planesOf(
  pixels: Float32Array,
  { width, height }: Sides,
  context: Sharing,
): Promise<Float32Array[]> {
  const out = [0, 1, 2, 3].map(() => context.team.take(width * height));
  await eachBand(planesBand, [pixels, width, out], height, context);
  return out;
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
  const out = PLANES.take(stride * (to - from + 2 * pad));
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
