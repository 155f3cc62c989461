import { inParts, runToEnd, type Steps } from '../work/steps.ts';

/** Counts of values in equal bins from `low` to `high`; values outside fall into the end bins. */
export interface Histogram {
  low: number;
  high: number;
  counts: Uint32Array;
  total: number;
}

/** Counts the values of a plane into bins. */
function count(plane: Float32Array, counts: Uint32Array, low: number, scale: number): void {
  const last = counts.length - 1;
  for (let i = 0; i < plane.length; i++) {
    let bin = Math.floor((plane[i] - low) * scale);
    if (bin < 0) bin = 0;
    else if (bin > last) bin = last;
    counts[bin]++;
  }
}

/** Histogram of a plane. @throws RangeError where `high` is not above `low` or `bins` < 1. */
export function histogram(plane: Float32Array, bins: number, low: number, high: number): Histogram {
  if (!(high > low) || bins < 1) throw new RangeError('A histogram needs high > low and at least one bin.');
  const counts = new Uint32Array(bins);
  count(plane, counts, low, bins / (high - low));
  return { low, high, counts, total: plane.length };
}

const FINE_BINS = 65536;

/** The lowest and the highest value; infinities of an empty plane. */
function extremes(plane: Float32Array): [number, number] {
  let low = Number.POSITIVE_INFINITY;
  let high = Number.NEGATIVE_INFINITY;
  for (let i = 0; i < plane.length; i++) {
    const value = plane[i];
    if (value < low) low = value;
    if (value > high) high = value;
  }
  return [low, high];
}

/**
 * Percentiles (ranks 0..100) of any plane to a bin (of 65536 unless said) of its range, in two passes without sorting. Pauses on
 * its way.
 */
export function* findingPercentiles(plane: Float32Array, ranks: number[], bins = FINE_BINS): Steps<number[]> {
  let [min, max] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  yield* inParts(plane.length, (from, to) => {
    const [low, high] = extremes(plane.subarray(from, to));
    min = Math.min(min, low);
    max = Math.max(max, high);
  });
  if (!(max > min)) return ranks.map(() => min);
  const counts = new Uint32Array(bins);
  const width = (max - min) / bins;
  yield* inParts(plane.length, (from, to) => count(plane.subarray(from, to), counts, min, 1 / width));
  return ranks.map((rank) => {
    const wanted = (Math.min(100, Math.max(0, rank)) / 100) * plane.length;
    let below = 0;
    for (let bin = 0; bin < bins; bin++) {
      const here = counts[bin];
      if (below + here >= wanted && here > 0) return min + width * (bin + (wanted - below) / here);
      below += here;
    }
    return max;
  });
}

/** `findingPercentiles` in one go. */
export const histogramPercentiles = (plane: Float32Array, ranks: number[], bins = FINE_BINS): number[] =>
  runToEnd(findingPercentiles(plane, ranks, bins));
