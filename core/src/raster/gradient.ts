import type { Band } from './band.ts';
import { type Edges, edgeTable } from './edges.ts';

/** Derivative kernels: `sharp` is the fourth-order central difference. */
export const GRADIENT_KERNELS = ['sharp', 'scharr', 'sobel', 'prewitt'] as const;
export type GradientKernel = (typeof GRADIENT_KERNELS)[number];

/** Smoothing across the derivative, (side, centre, side), already normalised. */
export const CROSS: Record<Exclude<GradientKernel, 'sharp'>, [number, number]> = {
  scharr: [3 / 16, 10 / 16],
  sobel: [1 / 4, 1 / 2],
  prewitt: [1 / 3, 1 / 3],
};

/** Slopes of a plane, in units per pixel: `gx` to the right, `gy` downwards. */
export interface Gradient {
  gx: Float32Array;
  gy: Float32Array;
}

function sharp(
  plane: Float32Array,
  width: number,
  height: number,
  edges: Edges,
  { from, to }: Band,
): Gradient {
  const gx = new Float32Array(width * (to - from));
  const gy = new Float32Array(gx.length);
  const columns = edgeTable(width, 2, 2, edges.x);
  const rows = edgeTable(height, 2, 2, edges.y);
  for (let y = from; y < to; y++) {
    const row = y * width;
    const out = (y - from) * width;
    const a = rows[y] * width;
    const b = rows[y + 1] * width;
    const c = rows[y + 3] * width;
    const d = rows[y + 4] * width;
    for (let x = 0; x < width; x++) {
      gx[out + x] =
        (8 * (plane[row + columns[x + 3]] - plane[row + columns[x + 1]]) -
          (plane[row + columns[x + 4]] - plane[row + columns[x]])) /
        12;
      gy[out + x] = (8 * (plane[c + x] - plane[b + x]) - (plane[d + x] - plane[a + x])) / 12;
    }
  }
  return { gx, gy };
}

function crossed(
  plane: Float32Array,
  width: number,
  height: number,
  edges: Edges,
  [side, centre]: [number, number],
  { from, to }: Band,
): Gradient {
  const gx = new Float32Array(width * (to - from));
  const gy = new Float32Array(gx.length);
  const columns = edgeTable(width, 1, 1, edges.x);
  const rows = edgeTable(height, 1, 1, edges.y);
  for (let y = from; y < to; y++) {
    const up = rows[y] * width;
    const row = y * width;
    const down = rows[y + 2] * width;
    const out = (y - from) * width;
    for (let x = 0; x < width; x++) {
      const l = columns[x];
      const r = columns[x + 2];
      gx[out + x] =
        (side * (plane[up + r] - plane[up + l] + plane[down + r] - plane[down + l]) +
          centre * (plane[row + r] - plane[row + l])) /
        2;
      gy[out + x] =
        (side * (plane[down + l] - plane[up + l] + plane[down + r] - plane[up + r]) +
          centre * (plane[down + x] - plane[up + x])) /
        2;
    }
  }
  return { gx, gy };
}

/**
 * Slopes of one plane with the chosen kernel. `sharp`: (8(h₁−h₋₁) − (h₂−h₋₂))/12, fourth order
 * (Fornberg 1988); the others smooth across as well (Sobel 1968, Prewitt 1970, Scharr 2000).
 * Of all rows, or of `rows` alone.
 */
export function gradient(
  plane: Float32Array,
  width: number,
  height: number,
  kernel: GradientKernel,
  edges: Edges,
  rows: Band = { from: 0, to: height },
): Gradient {
  return kernel === 'sharp'
    ? sharp(plane, width, height, edges, rows)
    : crossed(plane, width, height, edges, CROSS[kernel], rows);
}
