import * as v from 'valibot';
import { hexOfLinear } from '../colour/hex.ts';
import { LUMINANCE } from '../colour/luminance-of.ts';
import data from './chart.json' with { type: 'json' };

const share = v.pipe(v.number(), v.minValue(0), v.maxValue(1));
const band = v.pipe(
  v.tuple([share, share]),
  v.check(([low, high]) => low < high, 'A band needs its lower value first.'),
);

const named = {
  id: v.pipe(v.string(), v.minLength(1), v.maxLength(60)),
  name: v.pipe(v.string(), v.trim(), v.minLength(1, 'A line needs a name.'), v.maxLength(80)),
  group: v.pipe(v.string(), v.maxLength(60)),
  roughness: band,
  /** What it looks like, sRGB #rrggbb, where that is known. */
  swatch: v.optional(
    v.pipe(v.string(), v.regex(/^#[0-9a-f]{6}$/i, 'A swatch is a colour such as #8a7f70.'), v.toLowerCase()),
  ),
  /** How strongly a patch varies: 0 even, 1 grainy, 2 made of distinct pieces. */
  contrast: v.optional(v.picklist([0, 1, 2])),
  /** Photographed for tiles less often than others that look like it. */
  rare: v.optional(v.boolean()),
  /** Other words it is searched by, separated by spaces. */
  synonyms: v.optional(v.pipe(v.string(), v.maxLength(200))),
};

const dielectricSchema = v.strictObject({
  ...named,
  kind: v.literal('dielectric'),
  reflectance: band,
  f0: share,
});

const metalSchema = v.strictObject({
  ...named,
  kind: v.literal('metal'),
  f0: v.tuple([share, share, share]),
});

/** One line of a chart. */
export const chartLineSchema = v.variant('kind', [dielectricSchema, metalSchema]);

/** A chart: reference lines and the limits no surface passes. Reflectance, F0: linear 0..1. */
export const chartSchema = v.strictObject({
  about: v.string(),
  limits: v.strictObject({
    dielectricFloor: share,
    dielectricCeiling: share,
    metalF0LuminanceFloor: share,
  }),
  lines: v.array(chartLineSchema),
});

export type Chart = v.InferOutput<typeof chartSchema>;
export type ChartLine = v.InferOutput<typeof chartLineSchema>;

/** The chart that ships with the program. */
export const CHART: Chart = v.parse(chartSchema, data);

/** Stands for: no line of the chart is chosen. */
export const NO_LINE = 'none';
/** Stands for: the line of a custom chart that is kept with the settings. */
export const OWN_LINE = 'own';

/** The line of the built-in chart with this id, or null where there is none. */
export function chartLine(id: string): ChartLine | null {
  return CHART.lines.find((line) => line.id === id) ?? null;
}

/** What settings choose: a line of the built-in chart, or one's own, kept whole so that a recipe stands alone. */
export interface LineChoice {
  line: string;
  ownLine: ChartLine | null;
}

/** The line that is chosen, or null where none is. */
export const lineOf = ({ line, ownLine }: LineChoice): ChartLine | null =>
  line === OWN_LINE ? ownLine : chartLine(line);

/** What a line looks like, sRGB #rrggbb: its swatch, the colour of a metal, or a grey in the middle of its band. */
export function lineSwatch(line: ChartLine): string {
  if (line.swatch) return line.swatch;
  return hexOfLinear(
    line.kind === 'metal' ? line.f0 : Array(3).fill(Math.sqrt(line.reflectance[0] * line.reflectance[1])),
  );
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
