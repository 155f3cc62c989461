import * as v from 'valibot';
import { CHART, chartLine, lineF0, NO_LINE } from '../../chart/chart.ts';
import { luminance } from '../../colour/luminance.ts';
import { histogramPercentiles } from '../../raster/histogram.ts';
import { median } from '../../raster/statistics.ts';
import { choice, flag, number, type Values } from '../../settings/settings.ts';
import { type FinishOutput, type JoinOutput, type ReliefOutput, station } from '../types.ts';
import { logTone, roughnessMap, type ToneScale } from './roughness.ts';

const settings = {
  line: choice({
    label: 'Reference',
    help: 'The line of the chart that gives F0, the roughness band, and whether it is a metal.',
    default: NO_LINE,
    options: [NO_LINE, ...CHART.lines.map((line) => line.id)],
    names: ['No line: F0 0.04, roughness 0.5–0.9', ...CHART.lines.map((line) => line.name)],
  }),
  metal: choice({
    label: 'Metallic',
    help: 'Whether the whole tile is bare metal: as the line says, or set by hand.',
    default: 'line',
    options: ['line', 'no', 'yes'],
    names: ['As the line', 'No (0)', 'Yes (1)'],
  }),
  tone: number({
    label: 'From tone',
    help: 'How much brightness makes it rougher (right) or smoother (left).',
    group: 'Roughness',
    default: 0.4,
    min: -1,
    max: 1,
    step: 0.05,
    unit: '',
  }),
  cavity: number({
    label: 'From cavity',
    help: 'How much hollows are rougher (right) or smoother (left) than edges.',
    group: 'Roughness',
    default: 0.5,
    min: -1,
    max: 1,
    step: 0.05,
    unit: '',
  }),
  curve: number({
    label: 'Tone curve',
    help: 'Left: more of the tile is rough. Right: more of it is smooth.',
    group: 'Roughness',
    default: 0,
    min: -2,
    max: 2,
    step: 0.05,
    unit: '',
  }),
  ownBand: flag({
    label: 'Own band',
    help: 'Use the two limits below instead of the line’s roughness band.',
    group: 'Roughness',
    default: false,
  }),
  low: number({
    label: 'Smoothest',
    help: 'Lower limit of roughness, with own band.',
    group: 'Roughness',
    default: 0.5,
    min: 0,
    max: 1,
    step: 0.01,
    unit: '',
  }),
  high: number({
    label: 'Roughest',
    help: 'Upper limit of roughness, with own band.',
    group: 'Roughness',
    default: 0.9,
    min: 0,
    max: 1,
    step: 0.01,
    unit: '',
  }),
};

/** What Finish reads: never Gauge, so that exposure moves no roughness. */
export interface FinishInput {
  join: JoinOutput;
  relief: ReliefOutput;
}

const DEFAULT_BAND: [number, number] = [0.5, 0.9];

/** The roughness band in force, low before high. */
export function roughnessBand(chosen: Values<typeof settings>): [number, number] {
  if (chosen.ownBand) return [Math.min(chosen.low, chosen.high), Math.max(chosen.low, chosen.high)];
  return chartLine(chosen.line)?.roughness ?? DEFAULT_BAND;
}

/** Finish: how smooth, how much it mirrors, metal or not. */
export const finish = station({
  name: 'finish',
  line: 'Say how smooth it is, how much it mirrors, and whether it is metal.',
  settings,
  decision: v.strictObject({ centre: v.number(), spread: v.number() }),
  decidesOn: () => null,
  decide(input: Pick<FinishInput, 'join'>): ToneScale {
    const logs = luminance(input.join.picture).map(logTone);
    const centre = median(logs);
    return { centre, spread: 1.4826 * median(logs.map((v) => Math.abs(v - centre))) };
  },
  async run(input: FinishInput, chosen, decided): Promise<FinishOutput> {
    const line = chartLine(chosen.line);
    const { given } = input.join;
    const roughness =
      given.roughness?.planes[0] ??
      given.gloss?.planes[0].map((value) => 1 - value) ??
      roughnessMap(luminance(input.join.picture), input.relief.cavity, decided, {
        tone: chosen.tone,
        cavity: chosen.cavity,
        curve: chosen.curve,
        band: roughnessBand(chosen),
      });
    const metallic =
      chosen.metal === 'line' ? Number(line?.kind === 'metal') : Number(chosen.metal === 'yes');
    return { roughness, f0: lineF0(line), metallic };
  },
  verdict(output, _input, chosen) {
    const [low, middle, high] = histogramPercentiles(output.roughness, [2, 50, 98]);
    const line = chartLine(chosen.line);
    const odd = line !== null && (line.kind === 'metal') !== (output.metallic === 1);
    const noLine = line === null && !chosen.ownBand;
    const f0 = output.f0.map((v) => v.toFixed(2));
    const f0Words = f0[0] === f0[1] && f0[1] === f0[2] ? output.f0[0].toFixed(3) : f0.join(' ');
    return {
      state: odd || noLine ? 'look' : 'fine',
      brief: `rough ${low.toFixed(2)}–${high.toFixed(2)}`,
      sentence: `Roughness runs from ${low.toFixed(2)} to ${high.toFixed(2)} (middle ${middle.toFixed(2)}); F0 ${f0Words}; metallic ${output.metallic}.`,
      advice: odd
        ? 'Metallic disagrees with the line: choose “As the line”, or another line.'
        : noLine
          ? 'Choose the line of the chart for this surface: until then a common middle is used.'
          : '',
      figures: [
        { id: 'low', label: 'Roughness, 2 %', value: low, unit: '' },
        { id: 'middle', label: 'Roughness, median', value: middle, unit: '' },
        { id: 'high', label: 'Roughness, 98 %', value: high, unit: '' },
      ],
    };
  },
});
