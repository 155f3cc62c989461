import { KERNELS } from '../kernels/kernels.ts';
import type { Raster } from '../raster/raster.ts';
import { LUMINANCE } from './luminance-of.ts';

/** Luminance Y of a linear RGB raster; a one-channel raster is its own luminance (copied). */
export function luminance(raster: Raster): Float32Array {
  if (raster.channels === 1) return raster.planes[0].slice();
  return KERNELS.sumPlanes(raster.planes, LUMINANCE);
}
