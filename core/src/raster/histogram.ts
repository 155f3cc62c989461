import { statistics } from './statistics.ts';

/** Counts of values in equal bins from `low` to `high`; values outside fall into the end bins. */
export interface Histogram {
  low: number;
  high: number;
  counts: Uint32Array;
  total: number;
}

/** Histogram of a plane. @throws RangeError where `high` is not above `low` or `bins` < 1. */
export function histogram(plane: ArrayLike<number>, bins: number, low: number, high: number): Histogram {
  if (!(high > low) || bins < 1) throw new RangeError('A histogram needs high > low and at least one bin.');
  const counts = new Uint32Array(bins);
  const scale = bins / (high - low);
  for (let i = 0; i < plane.length; i++) {
    let bin = Math.floor((plane[i] - low) * scale);
    if (bin < 0) bin = 0;
    else if (bin >= bins) bin = bins - 1;
    counts[bin]++;
  }
  return { low, high, counts, total: plane.length };
}

const FINE_BINS = 65536;

/** Percentiles (ranks 0..100) of any plane to a bin (of 65536 unless said) of its range, in two passes without sorting. */
export function histogramPercentiles(plane: ArrayLike<number>, ranks: number[], bins = FINE_BINS): number[] {
  const { min, max } = statistics(plane);
  if (!(max > min)) return ranks.map(() => min);
  const { counts, total } = histogram(plane, bins, min, max);
  const width = (max - min) / bins;
  return ranks.map((rank) => {
    const wanted = (Math.min(100, Math.max(0, rank)) / 100) * total;
    let below = 0;
    for (let bin = 0; bin < bins; bin++) {
      const here = counts[bin];
      if (below + here >= wanted && here > 0) return min + width * (bin + (wanted - below) / here);
      below += here;
    }
    return max;
  });
}
