import { KERNELS } from '../kernels/kernels.ts';
import type { Edges } from '../raster/edges.ts';

/**
 * Undecimated wavelet bands (à trous, B3 spline; Starck & Murtagh 1994): `levels` detail planes from
 * fine to coarse and the smooth rest last. Their sum gives the plane back.
 */
export function atrousBands(
  plane: Float32Array,
  width: number,
  height: number,
  levels: number,
  edges: Edges,
): Float32Array[] {
  const bands: Float32Array[] = [];
  let smooth = plane;
  for (let level = 0; level < levels; level++) {
    const next = KERNELS.atrousSmooth(smooth, width, height, 2 ** level, edges);
    const band = new Float32Array(plane.length);
    for (let i = 0; i < band.length; i++) band[i] = smooth[i] - next[i];
    bands.push(band);
    smooth = next;
  }
  bands.push(levels === 0 ? plane.slice() : smooth);
  return bands;
}
