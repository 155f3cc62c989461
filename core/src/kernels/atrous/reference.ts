import { type Edges, edgeTable } from '../../raster/edges.ts';

/** One smoothing of the B3-spline kernel (1 4 6 4 1)/16 with `hole` pixels between taps (Starck & Murtagh 1994). */
export function atrousSmooth(
  plane: Float32Array,
  width: number,
  height: number,
  hole: number,
  edges: Edges,
): Float32Array {
  const middle = new Float32Array(plane.length);
  const reach = 2 * hole;
  const columns = edgeTable(width, reach, reach, edges.x);
  for (let y = 0; y < height; y++) {
    const row = y * width;
    for (let x = 0; x < width; x++) {
      if (x === reach && width > 2 * reach) {
        // Away from the edges nothing need be looked up.
        for (const end = width - reach; x < end; x++) {
          const i = row + x;
          middle[i] =
            0.375 * plane[i] +
            0.25 * (plane[i - hole] + plane[i + hole]) +
            0.0625 * (plane[i - reach] + plane[i + reach]);
        }
      }
      const at = x + reach;
      middle[row + x] =
        0.375 * plane[row + x] +
        0.25 * (plane[row + columns[at - hole]] + plane[row + columns[at + hole]]) +
        0.0625 * (plane[row + columns[at - reach]] + plane[row + columns[at + reach]]);
    }
  }
  const rows = edgeTable(height, reach, reach, edges.y);
  const out = new Float32Array(plane.length);
  for (let y = 0; y < height; y++) {
    const at = y + reach;
    const row = y * width;
    const a = rows[at - reach] * width;
    const b = rows[at - hole] * width;
    const c = rows[at + hole] * width;
    const d = rows[at + reach] * width;
    for (let x = 0; x < width; x++) {
      out[row + x] =
        0.375 * middle[row + x] +
        0.25 * (middle[b + x] + middle[c + x]) +
        0.0625 * (middle[a + x] + middle[d + x]);
    }
  }
  return out;
}

export const reference = { atrousSmooth };
