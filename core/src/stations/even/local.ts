import { gaussian } from '../../filters/gaussian.ts';
import { luminance } from '../../planes/luminance.ts';
import { MIRROR } from '../../raster/edges.ts';
import type { Raster } from '../../raster/raster.ts';
import { median } from '../../statistics/statistics.ts';
import { blocksOf, type CropBox, type LightField, logLight } from './fit.ts';
import type { ShadingField } from './side-shading.ts';

/** Sigma of the smoothing as a share of the crop: shades of about an eighth of it and wider are met. */
const WIDTH = 1 / 16;

/** The light that is left beside the broad one: log values on a grid of blocks over the picture. */
export interface LocalLight {
  across: number;
  values: Float32Array;
}

/**
 * Softer unevenness of light: what the broad light leaves of each block's luminance, clipped to one median
 * absolute deviation about its median, so that a dark patch counts as no more than a shade, and smoothed
 * over an eighth of the crop. Its mean is 0.
 */
export function localLight(
  picture: Raster,
  box: CropBox,
  fields: LightField[],
  leave: Float32Array | null,
): LocalLight {
  const { width, height } = picture;
  const { across, values, places } = blocksOf(luminance(picture), width, height, box, leave);
  const broad = (u: number, v: number) =>
    fields.reduce((sum, field) => sum + logLight(field, u, v), 0) / fields.length;
  const known = values.map((value, k) => value - broad(...places[k]));
  const free = known.filter((value) => !Number.isNaN(value));
  const middle = free.length > 0 ? median(free) : 0;
  // Blocks that tell nothing are like the middle.
  const left = known.map((value) => (Number.isNaN(value) ? middle : value));
  const reach = median(left.map((value) => Math.abs(value - middle)));
  const clipped = Float32Array.from(left, (value) => Math.min(reach, Math.max(-reach, value - middle)));
  const sigma = (WIDTH * across * Math.max(box.width, box.height)) / Math.max(width, height);
  const soft = gaussian(clipped, across, across, sigma, MIRROR);
  const centre = soft.reduce((sum, value) => sum + value, 0) / soft.length;
  return { across, values: soft.map((value) => value - centre) };
}

/** Softer light as a field over the picture. */
export const fieldOf = ({ across, values }: LocalLight): ShadingField => ({
  width: across,
  height: across,
  values,
});
