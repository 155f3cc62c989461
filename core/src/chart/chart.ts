import * as v from 'valibot';
import { LUMINANCE } from '../colour/luminance.ts';
import data from './chart.json' with { type: 'json' };

const share = v.pipe(v.number(), v.minValue(0), v.maxValue(1));
const band = v.pipe(
  v.tuple([share, share]),
  v.check(([low, high]) => low < high, 'A band needs its lower value first.'),
);

const dielectricSchema = v.strictObject({
  id: v.string(),
  name: v.string(),
  group: v.string(),
  kind: v.literal('dielectric'),
  reflectance: band,
  f0: share,
  roughness: band,
});

const metalSchema = v.strictObject({
  id: v.string(),
  name: v.string(),
  group: v.string(),
  kind: v.literal('metal'),
  f0: v.tuple([share, share, share]),
  roughness: band,
});

/** A chart: reference lines and the limits no surface passes. Reflectance, F0: linear 0..1. */
export const chartSchema = v.strictObject({
  about: v.string(),
  limits: v.strictObject({
    dielectricFloor: share,
    dielectricCeiling: share,
    metalF0LuminanceFloor: share,
  }),
  lines: v.array(v.variant('kind', [dielectricSchema, metalSchema])),
});

export type Chart = v.InferOutput<typeof chartSchema>;
export type ChartLine = Chart['lines'][number];

/** The chart that ships with the program. */
export const CHART: Chart = v.parse(chartSchema, data);

/** Stands for: no line of the chart is chosen. */
export const NO_LINE = 'none';

/** The line with this id, or null where there is none. */
export function chartLine(id: string): ChartLine | null {
  return CHART.lines.find((line) => line.id === id) ?? null;
}

const METAL_BAND: [number, number] = [0.85, 1];

/**
 * The band of luminance Y a line asks of the base colour. For a metal the base colour is its F0: the
 * band runs from 0.85 of F0's luminance (tarnish, dust) to F0's luminance itself.
 */
export function albedoBand(line: ChartLine): [number, number] {
  if (line.kind === 'dielectric') return line.reflectance;
  const y = line.f0.reduce((sum, value, c) => sum + value * LUMINANCE[c], 0);
  return [y * METAL_BAND[0], y * METAL_BAND[1]];
}

/** Lowest and highest Y that the base colour of such a surface can have. */
export function albedoLimits(line: ChartLine | null): [number, number] {
  if (line?.kind === 'metal') return [CHART.limits.metalF0LuminanceFloor, 1];
  return [CHART.limits.dielectricFloor, CHART.limits.dielectricCeiling];
}

/** F0 of a line as linear RGB. */
export function lineF0(line: ChartLine | null): [number, number, number] {
  if (!line) return [0.04, 0.04, 0.04];
  return line.kind === 'metal' ? line.f0 : [line.f0, line.f0, line.f0];
}
