/** Mean, standard deviation (of the whole, not of a sample) and extremes of a plane. */
export interface Statistics {
  mean: number;
  deviation: number;
  min: number;
  max: number;
}

/** One pass over `plane`; an empty plane gives NaN mean. */
export function statistics(plane: Float32Array): Statistics {
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

/** Puts the value that stands at place `k` of the ascending order there, lower ones before it and higher ones after it (FIND, Hoare 1961). */
function select(values: Float64Array, k: number, from: number): void {
  let [left, right] = [from, values.length - 1];
  while (left < right) {
    const pivot = values[k];
    let [i, j] = [left, right];
    do {
      while (values[i] < pivot) i++;
      while (pivot < values[j]) j--;
      if (i <= j) {
        const held = values[i];
        values[i++] = values[j];
        values[j--] = held;
      }
    } while (i <= j);
    if (j < k) left = i;
    if (k < i) right = j;
  }
}

/**
 * Exact percentiles of any list without NaN, linear between neighbours; `ranks` in 0..100. Holds a copy in doubles;
 * `histogramPercentiles` serves planes of many millions.
 */
export function percentiles(values: ArrayLike<number>, ranks: number[]): number[] {
  const own = new Float64Array(values);
  const found = new Array<number>(ranks.length);
  // From the lowest on, so that each search begins where the last one ended.
  const order = ranks.map((_, k) => k).sort((a, b) => ranks[a] - ranks[b]);
  let from = 0;
  for (const k of order) {
    const at = (Math.min(100, Math.max(0, ranks[k])) / 100) * (own.length - 1);
    const low = Math.floor(at);
    const part = at - low;
    select(own, low, from);
    from = low;
    let next = own[low];
    if (part > 0) {
      next = own[low + 1];
      for (let i = low + 2; i < own.length; i++) if (own[i] < next) next = own[i];
    }
    found[k] = own[low] + (next - own[low]) * part;
  }
  return found;
}

/** Median of any list. */
export function median(values: ArrayLike<number>): number {
  return percentiles(values, [50])[0];
}
