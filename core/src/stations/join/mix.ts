import type { Strip } from '../../kernels/cut-costs/strip.ts';
import { smoothStep } from '../../lattice/smooth-step.ts';
import { histogram } from '../../statistics/histogram.ts';
import { statistics } from '../../statistics/statistics.ts';

const BINS = 4096;

/** Quantile of the normal distribution (Acklam 2003; relative error below 1.2·10⁻⁹). */
export function normalQuantile(p: number): number {
  const a = [
    -39.69683028665376, 220.9460984245205, -275.9285104469687, 138.357751867269, -30.66479806614716,
    2.506628277459239,
  ];
  const b = [
    -54.47609879822406, 161.5858368580409, -155.6989798598866, 66.80131188771972, -13.28068155288572,
  ];
  const c = [
    -0.007784894002430293, -0.3223964580411365, -2.400758277161838, -2.549732539343734, 4.374664141464968,
    2.938163982698783,
  ];
  const d = [0.007784695709041462, 0.3224671290700398, 2.445134137142996, 3.754408661907416];
  const tail = (q: number) =>
    (((((c[0] * q + c[1]) * q + c[2]) * q + c[3]) * q + c[4]) * q + c[5]) /
    ((((d[0] * q + d[1]) * q + d[2]) * q + d[3]) * q + 1);
  if (p < 0.02425) return tail(Math.sqrt(-2 * Math.log(p)));
  if (p > 0.97575) return -tail(Math.sqrt(-2 * Math.log(1 - p)));
  const q = p - 0.5;
  const r = q * q;
  return (
    ((((((a[0] * r + a[1]) * r + a[2]) * r + a[3]) * r + a[4]) * r + a[5]) * q) /
    (((((b[0] * r + b[1]) * r + b[2]) * r + b[3]) * r + b[4]) * r + 1)
  );
}

/** A channel's values and their Gaussian twins, at even shares of the channel's pixels. */
interface Mapping {
  values: Float64Array;
  gaussians: Float64Array;
}

function mappingOf(plane: Float32Array): Mapping {
  const { min: low, max } = statistics(plane);
  const high = max > low ? max : low + 1e-6;
  const { counts } = histogram(plane, BINS, low, high);
  const values: number[] = [];
  const gaussians: number[] = [];
  let below = 0;
  for (let k = 0; k < BINS; k++) {
    if (counts[k] > 0) {
      values.push(low + ((k + 0.5) / BINS) * (high - low));
      gaussians.push(normalQuantile((below + counts[k] / 2) / plane.length));
    }
    below += counts[k];
  }
  return { values: Float64Array.from(values), gaussians: Float64Array.from(gaussians) };
}

/** Linear between the points of a rising table, held at its ends. */
function along(from: Float64Array, to: Float64Array, v: number): number {
  const last = from.length - 1;
  if (last === 0 || v <= from[0]) return to[0];
  if (v >= from[last]) return to[last];
  let [low, high] = [0, last];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (from[middle] <= v) low = middle;
    else high = middle;
  }
  return to[low] + ((to[high] - to[low]) * (v - from[low])) / (from[high] - from[low]);
}

/**
 * Crossfade over the whole strip that keeps the histogram's spread (Heitz & Neyret 2018): each channel is
 * made Gaussian by its histogram of 4096 bins over `whole` planes, mixed with weights whose squares sum to
 * one, and brought back. For fine grain without structure. Returns the mixed planes.
 */
export function mixStrip(strip: Strip, whole: Float32Array[]): Float32Array[] {
  const { width } = strip;
  return strip.a.map((a, c) => {
    const b = strip.b[c];
    const { values, gaussians } = mappingOf(whole[c]);
    const out = new Float32Array(a.length);
    for (let i = 0; i < out.length; i++) {
      const t = smoothStep(0, 1, ((i % width) + 0.5) / width);
      const sum =
        ((1 - t) * along(values, gaussians, a[i]) + t * along(values, gaussians, b[i])) /
        Math.hypot(t, 1 - t);
      // At the ends the copies stay as they are, to the bit of the table.
      const mixed = along(gaussians, values, sum);
      const pure = Math.min(1, 8 * Math.min(t, 1 - t));
      const linear = (1 - t) * a[i] + t * b[i];
      out[i] = pure * mixed + (1 - pure) * linear;
    }
    return out;
  });
}
