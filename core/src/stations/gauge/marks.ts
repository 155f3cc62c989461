import { albedoBand, albedoLimits, type ChartLine, type LineChoice, lineOf } from '../../chart/chart.ts';
import { findingPercentiles } from '../../statistics/histogram.ts';
import { inParts, runToEnd, type Steps } from '../../work/steps.ts';

/** What a pixel of the albedo is to Gauge: beyond any dielectric, below any metal, not counted, or within. */
export const MARK = { within: 0, below: 1, above: 2, uncounted: 3, belowMetal: 4 } as const;

/** Whether a mark represents what no real surface has. */
export const isBeyond = (mark: number): boolean =>
  mark === MARK.below || mark === MARK.above || mark === MARK.belowMetal;

/** Slack of the limits, so that what is held exactly at one is within. */
const SLACK = 5e-4;

/** Percentiles are known to this much; without it, many equal pixels at a rank would fall out of it. */
const RANK_SLACK = 2e-5;

/** The tile's luminance against the chart. */
export interface GaugeMarks {
  /** One of `MARK` for each pixel: against the limits of any surface of its line's kind. */
  marks: Uint8Array<ArrayBuffer>;
  counted: number;
  /** Pixels of the rest that count, and of them those inside the line's band. */
  ofRest: number;
  inBand: number;
  /** In the middle of what counts of the rest. */
  median: number;
  /** Of each zone with a line of its own; null where no pixel belongs to it. */
  zoneMedians: (number | null)[];
}

/** What lies on a zone's soft edge belongs to no line. */
export const BETWEEN = 255;

/** Zones with lines of their own: to which each pixel belongs (0 to the rest, k + 1 to line k, or `BETWEEN`), and the lines. */
export interface Belonging {
  belongs: Uint8Array;
  lines: (ChartLine | null)[];
}

/** Rank (percent) in the middle of the range that counts; a range turned round is taken as it is meant. */
export const middleRank = (chosen: { countFrom: number; countTo: number }) =>
  (chosen.countFrom + chosen.countTo) / 2;

/** The values of a plane whose pixels belong to one part. */
export function valuesOf(plane: Float32Array, belongs: Uint8Array, part: number): Float32Array {
  let count = 0;
  for (let i = 0; i < belongs.length; i++) if (belongs[i] === part) count++;
  const out = new Float32Array(count);
  for (let i = 0, k = 0; i < belongs.length; i++) if (belongs[i] === part) out[k++] = plane[i];
  return out;
}

/** Within which values each part's pixels lie, and what those below are; part 0 is the rest, of which only a range counts. */
interface Bounds {
  floors: Float64Array;
  ceilings: Float64Array;
  below: Uint8Array;
  counts: readonly [number, number];
  band: readonly [number, number];
}

/** The loop by itself, with nothing in it but numbers. Gives what was counted: in all, of the rest, and of that in the band. */
function markPixels(
  y: Float32Array,
  belongs: Uint8Array | null,
  { floors, ceilings, below, counts: [low, high], band: [bandLow, bandHigh] }: Bounds,
  marks: Uint8Array,
): [counted: number, ofRest: number, inBand: number] {
  const { uncounted, above } = MARK;
  let counted = 0;
  let ofRest = 0;
  let inBand = 0;
  for (let i = 0; i < y.length; i++) {
    const v = y[i];
    const part = belongs ? belongs[i] : 0;
    if (part === BETWEEN || (part === 0 && (v < low || v > high))) {
      marks[i] = uncounted;
      continue;
    }
    if (part === 0) {
      ofRest++;
      if (v >= bandLow && v <= bandHigh) inBand++;
    }
    counted++;
    if (v < floors[part]) marks[i] = below[part];
    else if (v > ceilings[part]) marks[i] = above;
  }
  return [counted, ofRest, inBand];
}

/** Marks what counts, and what lies beyond the limits of any real surface, in a plane of luminance Y; pauses on its way. */
export function* marking(
  y: Float32Array,
  chosen: LineChoice & { countFrom: number; countTo: number },
  zones: Belonging | null = null,
): Steps<GaugeMarks> {
  const from = Math.min(chosen.countFrom, chosen.countTo);
  const to = Math.max(chosen.countFrom, chosen.countTo);
  const rest = zones ? valuesOf(y, zones.belongs, 0) : y;
  const [low, median, high] =
    rest.length > 0 ? yield* findingPercentiles(rest, [from, middleRank(chosen), to]) : [0, 0, 1];
  yield;
  const lines = [lineOf(chosen), ...(zones?.lines ?? [])];
  const limits = lines.map(albedoLimits);
  const bounds: Bounds = {
    floors: Float64Array.from(limits, ([floor]) => floor - SLACK),
    ceilings: Float64Array.from(limits, ([, ceiling]) => ceiling + SLACK),
    below: Uint8Array.from(lines, (line) => (line?.kind === 'metal' ? MARK.belowMetal : MARK.below)),
    counts: [low - RANK_SLACK, high + RANK_SLACK],
    // With no line nothing lies in its band.
    band: lines[0] ? albedoBand(lines[0]) : [1, 0],
  };
  const marks = new Uint8Array(y.length);
  let [counted, ofRest, inBand] = [0, 0, 0];
  yield* inParts(y.length, (from, to) => {
    const belongs = zones?.belongs.subarray(from, to) ?? null;
    const sums = markPixels(y.subarray(from, to), belongs, bounds, marks.subarray(from, to));
    counted += sums[0];
    ofRest += sums[1];
    inBand += sums[2];
  });
  const zoneMedians: (number | null)[] = [];
  for (let k = 0; zones && k < zones.lines.length; k++) {
    yield;
    const own = valuesOf(y, zones.belongs, k + 1);
    zoneMedians.push(own.length > 0 ? (yield* findingPercentiles(own, [50]))[0] : null);
  }
  return { marks, counted, ofRest, inBand, median, zoneMedians };
}

/** `marking` in one go. */
export const gaugeMarks = (...given: Parameters<typeof marking>): GaugeMarks => runToEnd(marking(...given));
