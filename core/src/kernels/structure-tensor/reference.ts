import type { Band } from '../../raster/band.ts';
import type { Edges } from '../../raster/edges.ts';
import { gradient } from '../../raster/gradient.ts';
import type { Sides } from '../../raster/sides.ts';

/**
 * Products of slopes (Scharr 2000) of some rows of planes, each plane by its weight, added up: x·x, x·y and y·y. Values per
 * pixel; planes have the sides of the field, what is made has the rows alone.
 */
export function structureTensor(
  planes: readonly Float32Array[],
  weights: readonly number[],
  { width, height, edges }: Sides & { edges: Edges },
  rows: Band,
): Float32Array[] {
  const out = [0, 1, 2].map(() => new Float32Array(width * (rows.to - rows.from)));
  for (const [c, plane] of planes.entries()) {
    const { gx, gy } = gradient(plane, width, height, 'scharr', edges, rows);
    const weight = weights[c];
    for (let i = 0; i < gx.length; i++) {
      out[0][i] += weight * gx[i] * gx[i];
      out[1][i] += weight * gx[i] * gy[i];
      out[2][i] += weight * gy[i] * gy[i];
    }
  }
  return out;
}

export const reference = { structureTensor };
