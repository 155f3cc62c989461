import { KERNELS } from '../kernels/kernels.ts';
import type { Raster } from '../raster/raster.ts';

/** Weights of linear sRGB primaries in luminance Y (ITU-R BT.709). */
export const LUMINANCE: [number, number, number] = [0.2126, 0.7152, 0.0722];

/** Luminance Y of one linear RGB colour. */
export const luminanceOf = (r: number, g: number, b: number): number =>
  LUMINANCE[0] * r + LUMINANCE[1] * g + LUMINANCE[2] * b;

/** Luminance Y of a linear RGB raster; a one-channel raster is its own luminance (copied). */
export function luminance(raster: Raster): Float32Array {
  if (raster.channels === 1) return raster.planes[0].slice();
  return KERNELS.sumPlanes(raster.planes, LUMINANCE);
}
