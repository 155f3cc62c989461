import { LUMINANCE } from '../colour/luminance-of.ts';
import type { Raster } from '../raster/raster.ts';
import { runToEnd, type Steps } from '../work/steps.ts';
import { summing } from './summing.ts';

/** Luminance Y of a linear RGB raster, with pauses; a one-channel raster is its own luminance (copied). */
export function* takingLuminance(raster: Raster): Steps<Float32Array> {
  if (raster.channels === 1) return raster.planes[0].slice();
  return yield* summing(raster.planes, LUMINANCE);
}

/** `takingLuminance` in one go. */
export const luminance = (raster: Raster): Float32Array => runToEnd(takingLuminance(raster));
