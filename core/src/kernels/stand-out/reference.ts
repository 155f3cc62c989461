import { histogramPercentiles } from '../../statistics/histogram.ts';

/** Enough for a median to a hundredth, and few enough to stay close at hand. */
export const BINS = 4096;

/** How far a plane lies from another, times a weight, over what is usual: the median of that, and `floor`. */
export function standOut(
  plane: Float32Array,
  other: Float32Array,
  weight: number,
  floor: number,
): Float32Array {
  const out = new Float32Array(plane.length);
  for (let i = 0; i < out.length; i++) out[i] = Math.abs(weight * (plane[i] - other[i]));
  const scale = 1 / (histogramPercentiles(out, [50], BINS)[0] + floor);
  for (let i = 0; i < out.length; i++) out[i] *= scale;
  return out;
}

export const reference = { standOut };
