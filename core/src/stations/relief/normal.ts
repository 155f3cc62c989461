import { type GradientKernel, gradient } from '../../filters/gradient.ts';
import type { Edges } from '../../raster/edges.ts';
import { Raster } from '../../raster/raster.ts';

/** Direction in the picture that a normal map's green points to. */
export const NORMAL_Y = ['up', 'down'] as const;
export type NormalY = (typeof NORMAL_Y)[number];

/**
 * Unit normals of a height field. `height` 0..1 over a tile `size` px wide; `depthShare` is the depth of
 * the full range as a share of the edge, so that slopes are true; `strength` scales the slopes.
 * Planes: x to the right, y as `normalY` says, z out; −1..1.
 */
export function normalMap(
  height: Float32Array,
  size: number,
  depthShare: number,
  strength: number,
  kernel: GradientKernel,
  normalY: NormalY,
  edges: Edges,
): Raster {
  const { gx, gy } = gradient(height, size, size, kernel, edges);
  const nz = new Float32Array(height.length);
  const scale = depthShare * size * strength;
  const signY = normalY === 'up' ? 1 : -1;
  for (let i = 0; i < height.length; i++) {
    const p = -gx[i] * scale;
    const q = gy[i] * scale * signY;
    const inverse = 1 / Math.sqrt(p * p + q * q + 1);
    gx[i] = p * inverse;
    gy[i] = q * inverse;
    nz[i] = inverse;
  }
  return new Raster(size, size, [gx, gy, nz]);
}
