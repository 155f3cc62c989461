import { albedoBand, albedoLimits, type ChartLine } from '../../chart/chart.ts';
import { undoHold } from '../../colour/luminance-map.ts';
import { percentiles } from '../../statistics/statistics.ts';

/** The gain that fits a surface, and the contrast by which two percentiles come to the ends of its band. */
export interface Fit {
  /** Y in the middle of what counts, before the gain. */
  median: number;
  gain: number;
  contrast: number;
}

export interface FitWish {
  line: ChartLine | null;
  fit: boolean;
  by: 'median' | 'percentiles';
  hold: boolean;
  /** Ranks, in percent. */
  ranks: { middle: number; low: number; high: number };
}

/** Percentiles this near to one another are one tone, which no contrast spreads. */
const ALIKE = 0.02;
const MOST_CONTRAST = 4;

/** Nearest value in the middle half (by ratio) of a band: into the band, off its edges, no further. */
export function aimFor(median: number, [low, high]: [number, number]): number {
  const ratio = high / low;
  return Math.min(low * ratio ** 0.75, Math.max(low * ratio ** 0.25, median));
}

/** Fits luminances Y to a line of the chart. Without a line, or where there is no light at all, nothing is changed. */
export function fitTo(y: ArrayLike<number>, { line, fit, by, hold, ranks }: FitWish): Fit {
  if (y.length === 0) return { median: 0, gain: 1, contrast: 1 };
  const [median, low, high] = percentiles(y, [ranks.middle, ranks.low, ranks.high]);
  if (!fit || !line || median <= 0) return { median, gain: 1, contrast: 1 };
  const limits = albedoLimits(line);
  const aimAt = (value: number) => (hold ? undoHold(value, limits) : value);
  const band = albedoBand(line);
  if (by === 'median' || low <= 0 || high <= low * (1 + ALIKE)) {
    return { median, gain: aimAt(aimFor(median, band)) / median, contrast: 1 };
  }
  const [first, last] = band.map(aimAt);
  const contrast = Math.min(MOST_CONTRAST, Math.log(last / first) / Math.log(high / low));
  // Where contrast is bounded, the middle of both still comes to the middle of the band.
  const middle = Math.sqrt(first * last) * (median / Math.sqrt(low * high)) ** contrast;
  return { median, gain: middle / median, contrast };
}
