import { gaussian } from '../../filters/gaussian.ts';
import type { Edges } from '../../raster/edges.ts';
import type { Sides } from '../shape.ts';

/** Height less its surroundings at `sigma` px: positive on ridges, negative in hollows. */
export function localRelief(height: Float32Array, sides: Sides, sigma: number, edges: Edges): Float32Array {
  const around = gaussian(height, sides.width, sides.height, sigma, edges);
  for (let i = 0; i < around.length; i++) around[i] = height[i] - around[i];
  return around;
}

/** Signed cavity 0..1, 0.5 where flat, darker in hollows; `spread` is the deviation that fills a third. */
export function cavityMap(
  height: Float32Array,
  sides: Sides,
  sigma: number,
  spread: number,
  strength: number,
  edges: Edges,
): Float32Array {
  const local = localRelief(height, sides, sigma, edges);
  if (!(spread > 0)) return local.fill(0.5);
  const scale = strength / (6 * spread);
  for (let i = 0; i < local.length; i++) local[i] = Math.min(1, Math.max(0, 0.5 + local[i] * scale));
  return local;
}
