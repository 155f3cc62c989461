import { albedoBand, albedoLimits, chartLine } from '../../chart/chart.ts';
import { histogramPercentiles } from '../../raster/histogram.ts';

/** What a pixel of the albedo is to Gauge. */
export const MARK = { within: 0, below: 1, above: 2, uncounted: 3 } as const;

/** Slack of the limits, so that what is held exactly at one is within. */
const SLACK = 5e-4;

/** Percentiles are known to this much; without it, many equal pixels at a rank would fall out of it. */
const RANK_SLACK = 2e-5;

/** The tile's luminance against the chart. */
export interface GaugeMarks {
  /** One of `MARK` for each pixel: against the limits of any surface of the line's kind. */
  marks: Uint8Array<ArrayBuffer>;
  counted: number;
  /** Counted pixels inside the line's band. */
  inBand: number;
  /** In the middle of what counts. */
  median: number;
}

/** Rank (percent) in the middle of the range that counts; a range turned round is taken as it is meant. */
export const middleRank = (chosen: { countFrom: number; countTo: number }) =>
  (chosen.countFrom + chosen.countTo) / 2;

/** Marks what counts, and what lies beyond the limits of any real surface, in a plane of luminance Y. */
export function gaugeMarks(
  y: Float32Array,
  chosen: { line: string; countFrom: number; countTo: number },
): GaugeMarks {
  const from = Math.min(chosen.countFrom, chosen.countTo);
  const to = Math.max(chosen.countFrom, chosen.countTo);
  const [low, median, high] = histogramPercentiles(y, [from, middleRank(chosen), to]);
  const line = chartLine(chosen.line);
  const [floor, ceiling] = albedoLimits(line);
  const band = line ? albedoBand(line) : null;
  const marks = new Uint8Array(y.length);
  let counted = 0;
  let inBand = 0;
  for (let i = 0; i < y.length; i++) {
    const v = y[i];
    if (v < low - RANK_SLACK || v > high + RANK_SLACK) {
      marks[i] = MARK.uncounted;
      continue;
    }
    counted++;
    if (v < floor - SLACK) marks[i] = MARK.below;
    else if (v > ceiling + SLACK) marks[i] = MARK.above;
    if (band && v >= band[0] && v <= band[1]) inBand++;
  }
  return { marks, counted, inBand, median };
}
