import { gaussian } from '../../filters/gaussian.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import type { Edges } from '../../raster/edges.ts';
import type { Sides } from '../shape.ts';

/** Height less its surroundings at `sigma` px: positive on ridges, negative in hollows. */
export function localRelief(height: Float32Array, sides: Sides, sigma: number, edges: Edges): Float32Array {
  const around = gaussian(height, sides.width, sides.height, sigma, edges);
  return KERNELS.sumPlanes([height, around], [1, -1], {}, around);
}

/** How strong a cavity map is about flat: of what lies below its surroundings and of what stands out of them. */
export interface CavityStrength {
  hollows: number;
  edges: number;
}

/** Signed cavity 0..1, 0.5 where flat, darker in hollows; `spread` is the deviation that fills a third. */
export function cavityMap(
  height: Float32Array,
  sides: Sides,
  sigma: number,
  spread: number,
  strength: CavityStrength,
  edges: Edges,
): Float32Array {
  if (!(spread > 0)) return new Float32Array(height.length).fill(0.5);
  const [hollow, edge] = [strength.hollows, strength.edges].map((one) => one / (6 * spread));
  if (hollow === edge) {
    const around = gaussian(height, sides.width, sides.height, sigma, edges);
    return KERNELS.sumPlanes([height, around], [edge, -edge], { base: 0.5, low: 0, high: 1 }, around);
  }
  const local = localRelief(height, sides, sigma, edges);
  for (let i = 0; i < local.length; i++) {
    const value = local[i];
    local[i] = Math.min(1, Math.max(0, 0.5 + value * (value < 0 ? hollow : edge)));
  }
  return local;
}
