import type { Band } from '../../raster/band.ts';
import type { Edges } from '../../raster/edges.ts';
import { type GradientKernel, gradient } from '../../raster/gradient.ts';
import { Raster } from '../../raster/raster.ts';
import type { Sides } from '../../raster/sides.ts';
import type { Steps } from '../../work/steps.ts';

/** Direction in the picture that a normal map's green points to. */
export const NORMAL_Y = ['up', 'down'] as const;
export type NormalY = (typeof NORMAL_Y)[number];

/** From slopes to unit vectors, in their place. */
function unitNormals(
  gx: Float32Array,
  gy: Float32Array,
  nz: Float32Array,
  scale: number,
  signY: 1 | -1,
): void {
  for (let i = 0; i < nz.length; i++) {
    const p = -gx[i] * scale;
    const q = gy[i] * scale * signY;
    const inverse = 1 / Math.sqrt(p * p + q * q + 1);
    gx[i] = p * inverse;
    gy[i] = q * inverse;
    nz[i] = inverse;
  }
}

/**
 * Unit normals of a height field. `height` 0..1 over a tile of these sides; `depthShare` is the depth of
 * the full range as a share of the longer edge, so that slopes are true; `strength` scales the slopes.
 * Planes: x to the right, y as `normalY` says, z out; −1..1. Of all rows, or of `rows` alone in their place in planes that are
 * given. Pauses on its way.
 */
export function* makingNormals(
  height: Float32Array,
  sides: Sides,
  depthShare: number,
  strength: number,
  kernel: GradientKernel,
  normalY: NormalY,
  edges: Edges,
  rows: Band = { from: 0, to: sides.height },
  out: Raster = Raster.filled(sides.width, sides.height, 3),
): Steps<Raster> {
  const { gx, gy } = gradient(height, sides.width, sides.height, kernel, edges, rows);
  yield;
  const nz = new Float32Array(gx.length);
  const scale = depthShare * Math.max(sides.width, sides.height) * strength;
  unitNormals(gx, gy, nz, scale, normalY === 'up' ? 1 : -1);
  for (const [c, part] of [gx, gy, nz].entries()) out.planes[c].set(part, rows.from * sides.width);
  return out;
}

export const reference = { makingNormals };
