import { KERNELS } from '../kernels/kernels.ts';
import type { Edges } from '../raster/edges.ts';

/** Above this σ (pixels) the recursive filter is both exact enough and faster. */
export const FIR_UP_TO = 3;

/** Gaussian blur of one plane, σ in pixels; σ ≤ 0.05 gives a copy. Wraps or mirrors by axis. */
export function gaussian(
  plane: Float32Array,
  width: number,
  height: number,
  sigma: number,
  edges: Edges,
): Float32Array {
  if (sigma <= 0.05) return plane.slice();
  const filter = sigma <= FIR_UP_TO ? KERNELS.gaussianFir : KERNELS.gaussianRecursive;
  return filter(plane, width, height, sigma, edges);
}
