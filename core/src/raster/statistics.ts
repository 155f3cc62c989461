/** Mean, standard deviation (of the whole, not of a sample) and extremes of a plane. */
export interface Statistics {
  mean: number;
  deviation: number;
  min: number;
  max: number;
}

/** One pass over `plane`; an empty plane gives NaN mean. */
export function statistics(plane: ArrayLike<number>): Statistics {
  let sum = 0;
  let squares = 0;
  let min = Number.POSITIVE_INFINITY;
  let max = Number.NEGATIVE_INFINITY;
  const shift = plane.length > 0 ? plane[0] : 0;
  for (let i = 0; i < plane.length; i++) {
    const v = plane[i];
    const d = v - shift;
    sum += d;
    squares += d * d;
    if (v < min) min = v;
    if (v > max) max = v;
  }
  const n = plane.length;
  const mean = sum / n;
  return { mean: mean + shift, deviation: Math.sqrt(Math.max(0, squares / n - mean * mean)), min, max };
}

/** Mean of a plane. */
export function mean(plane: ArrayLike<number>): number {
  let sum = 0;
  for (let i = 0; i < plane.length; i++) sum += plane[i];
  return sum / plane.length;
}

/**
 * Exact percentiles by sorting a copy, linear between neighbours; `ranks` in 0..100.
 * Meant for up to some hundred thousand values; `histogramPercentiles` serves larger planes.
 */
export function percentiles(values: ArrayLike<number>, ranks: number[]): number[] {
  const sorted = Float64Array.from(values).sort();
  return ranks.map((rank) => sortedPercentile(sorted, rank));
}

/** Percentile of an ascending array, linear between neighbours; `rank` in 0..100. */
export function sortedPercentile(sorted: ArrayLike<number>, rank: number): number {
  const at = (Math.min(100, Math.max(0, rank)) / 100) * (sorted.length - 1);
  const low = Math.floor(at);
  const high = Math.min(sorted.length - 1, low + 1);
  return sorted[low] + (sorted[high] - sorted[low]) * (at - low);
}

/** Median of any list. */
export function median(values: ArrayLike<number>): number {
  return percentiles(values, [50])[0];
}
