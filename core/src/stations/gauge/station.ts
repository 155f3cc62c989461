import * as v from 'valibot';
import { albedoBand, albedoLimits, CHART, chartLine, NO_LINE } from '../../chart/chart.ts';
import { luminance } from '../../colour/luminance.ts';
import { percentiles } from '../../raster/statistics.ts';
import { choice, colour, flag, number } from '../../settings/settings.ts';
import { type GaugeOutput, type JoinOutput, station } from '../types.ts';
import { gaugeMarks, MARK, middleRank } from './marks.ts';
import { whiteBalanced } from './recolour.ts';
import { applyTone, type Tone, undoHold } from './tone.ts';

const settings = {
  line: choice({
    label: 'Reference',
    help: 'The line of the chart this surface is held against.',
    default: NO_LINE,
    options: [NO_LINE, ...CHART.lines.map((line) => line.id)],
    names: ['No line chosen', ...CHART.lines.map((line) => line.name)],
  }),
  fit: flag({
    label: 'Fit',
    help: 'Moves the median of what counts into the line’s band and keeps the contrast.',
    default: true,
  }),
  fitBy: choice({
    label: 'Fit by',
    help: 'median: moved into the band, contrast kept. percentiles: the two below come to the ends of the band, contrast follows.',
    default: 'median',
    options: ['median', 'percentiles'],
    names: ['The median', 'Two percentiles'],
  }),
  fitLow: number({
    label: 'Lower',
    help: 'The percentile that comes to the lower end of the band, where it is fitted by two.',
    group: 'Percentiles',
    default: 10,
    min: 0.5,
    max: 49,
    step: 0.5,
    unit: '%',
  }),
  fitHigh: number({
    label: 'Upper',
    help: 'The percentile that comes to the upper end of the band, where it is fitted by two.',
    group: 'Percentiles',
    default: 90,
    min: 51,
    max: 99.5,
    step: 0.5,
    unit: '%',
  }),
  exposure: number({
    label: 'Exposure',
    help: 'Brighter or darker, in stops, on top of the fit.',
    default: 0,
    min: -4,
    max: 4,
    step: 0.02,
    unit: 'stops',
  }),
  contrast: number({
    label: 'Contrast',
    help: 'Spread about the median.',
    default: 1,
    min: 0.3,
    max: 2,
    step: 0.01,
    unit: '×',
  }),
  colour: number({
    label: 'Colour',
    help: 'Strength of colour; luminance is held.',
    default: 1,
    min: 0,
    max: 2,
    step: 0.01,
    unit: '×',
  }),
  hueDegrees: number({
    label: 'Turn hue',
    help: 'Turns every hue, luminance held.',
    group: 'Recolour',
    default: 0,
    min: -180,
    max: 180,
    step: 1,
    unit: '°',
  }),
  towards: colour({
    label: 'Towards',
    help: 'The colour that all others are pulled towards, luminance held.',
    group: 'Recolour',
    default: '#8a7f70',
  }),
  pull: number({
    label: 'Pull',
    help: 'How much of the way colours go towards it.',
    group: 'Recolour',
    default: 0,
    min: 0,
    max: 1,
    step: 0.01,
    unit: '',
  }),
  white: colour({
    label: 'Should be grey',
    help: 'White balance: the colour in the picture that is grey in truth; grey itself changes nothing.',
    group: 'White balance',
    default: '#808080',
  }),
  hold: flag({
    label: 'Hold lights and darks',
    help: 'Bends what no real surface has softly back inside the limits.',
    default: true,
  }),
  countFrom: number({
    label: 'Count from',
    help: 'The darkest part of the tile that does not count for fit and figures (cracks, holes).',
    group: 'What counts',
    default: 0,
    min: 0,
    max: 95,
    step: 1,
    unit: '%',
  }),
  countTo: number({
    label: 'Count to',
    help: 'Where the brightest part that does not count begins (light joints), in percent of the tile.',
    group: 'What counts',
    default: 100,
    min: 5,
    max: 100,
    step: 1,
    unit: '%',
  }),
};

/** The luminance Y of Join's picture in the middle of what counts, and the gain that fits it. */
export interface GaugeDecision {
  median: number;
  gain: number;
  /** Contrast by which two percentiles come to the ends of the band; 1 where it is fitted by the median. */
  contrast: number;
}

/** Percentiles this near to one another are one tone, which no contrast spreads. */
const ALIKE = 0.02;
const MOST_CONTRAST = 4;

/** Nearest value in the middle half (by ratio) of a band: into the band, off its edges, no further. */
export function aimFor(median: number, [low, high]: [number, number]): number {
  const ratio = high / low;
  return Math.min(low * ratio ** 0.75, Math.max(low * ratio ** 0.25, median));
}

/** Gauge: brings the albedo to values a real surface has. Touches nothing else. */
export const gauge = station({
  name: 'gauge',
  line: 'Bring the albedo to values a real surface has.',
  settings,
  decision: v.strictObject({ median: v.number(), gain: v.number(), contrast: v.number() }),
  decidesOn: ({ line, fit, fitBy, fitLow, fitHigh, hold, countFrom, countTo, white }) => [
    [line, fit, hold, countFrom, countTo, white],
    fitBy === 'percentiles' ? [fitLow, fitHigh] : null,
  ],
  decide(input: JoinOutput, chosen): GaugeDecision {
    const [from, to] = [chosen.countFrom, chosen.countTo].sort((a, b) => a - b);
    // Percentiles of what counts.
    const rank = (percent: number) => from + ((to - from) * percent) / 100;
    const [median, low, high] = percentiles(luminance(whiteBalanced(input.picture, chosen.white)), [
      middleRank(chosen),
      rank(chosen.fitLow),
      rank(chosen.fitHigh),
    ]);
    const line = chartLine(chosen.line);
    if (!chosen.fit || !line || median <= 0) return { median, gain: 1, contrast: 1 };
    const limits = albedoLimits(line);
    const aimAt = (y: number) => (chosen.hold ? undoHold(y, limits) : y);
    const band = albedoBand(line);
    if (chosen.fitBy === 'median' || low <= 0 || high <= low * (1 + ALIKE)) {
      return { median, gain: aimAt(aimFor(median, band)) / median, contrast: 1 };
    }
    const [first, last] = band.map(aimAt);
    const contrast = Math.min(MOST_CONTRAST, Math.log(last / first) / Math.log(high / low));
    // Where contrast is bounded, the middle of both still comes to the middle of the band.
    const middle = Math.sqrt(first * last) * (median / Math.sqrt(low * high)) ** contrast;
    return { median, gain: middle / median, contrast };
  },
  async run(input, chosen, decided, _frame, context): Promise<GaugeOutput> {
    const gain = decided.gain * 2 ** chosen.exposure;
    const tone: Tone = {
      gain,
      contrast: chosen.contrast * decided.contrast,
      pivot: Math.max(1e-4, decided.median * gain),
      hold: chosen.hold ? albedoLimits(chartLine(chosen.line)) : null,
    };
    const { hueDegrees, towards, pull } = chosen;
    const balanced = whiteBalanced(input.picture, chosen.white);
    const recolour = { strength: chosen.colour, hueDegrees, towards, pull };
    return { albedo: await applyTone(balanced, tone, recolour, context.breathe) };
  },
  verdict(output, _input, chosen) {
    const y = luminance(output.albedo);
    const { marks, counted, inBand, median } = gaugeMarks(y, chosen);
    const line = chartLine(chosen.line);
    const band = line ? albedoBand(line) : null;
    let beyond = 0;
    for (const mark of marks) if (mark === MARK.below || mark === MARK.above) beyond++;
    const beyondShare = (100 * beyond) / Math.max(1, counted);
    const inShare = (100 * inBand) / Math.max(1, counted);
    const inside = band ? median >= band[0] * 0.999 && median <= band[1] * 1.001 : true;
    const state = !inside ? 'wrong' : beyondShare > 1 || !line ? 'look' : 'fine';
    const surface = line?.kind === 'metal' ? 'metal' : 'dielectric';
    const where = !band
      ? 'no line is chosen to hold it against'
      : inside
        ? `inside the band ${band[0].toFixed(2)}–${band[1].toFixed(2)}`
        : `${median < band[0] ? 'below' : 'above'} the band ${band[0].toFixed(2)}–${band[1].toFixed(2)}`;
    const beyondWords =
      beyondShare < 0.005
        ? `Nothing is beyond what a ${surface} has.`
        : `${beyondShare.toFixed(1)} % is beyond what any ${surface} has.`;
    return {
      state,
      brief: line
        ? inside
          ? `median ${median.toFixed(3)}`
          : `median ${median < band![0] ? 'too dark' : 'too bright'}`
        : 'no line chosen',
      sentence: `Median ${median.toFixed(3)}, ${where}. ${beyondWords}`,
      advice: !line
        ? 'Choose the line of the chart that is nearest to this surface.'
        : !inside
          ? 'Turn Fit on, or bring the exposure back.'
          : beyondShare > 1
            ? 'Hold lights and darks, or lower the contrast.'
            : '',
      figures: [
        { id: 'median', label: 'Median', value: median, unit: 'Y' },
        ...(band ? [{ id: 'inBand', label: 'Inside the band', value: inShare, unit: '%' }] : []),
        { id: 'beyond', label: `Beyond any ${surface}`, value: beyondShare, unit: '%', limit: 1 },
      ],
    };
  },
});
