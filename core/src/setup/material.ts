import { CHART, type ChartLine } from '../chart/chart.ts';
import { linearOfHex } from '../colour/hex.ts';
import { luminanceOf } from '../colour/luminance-of.ts';
import { linearToOklab } from '../colour/oklab.ts';
import type { Raster } from '../raster/raster.ts';
import { median, statistics } from '../statistics/statistics.ts';
import { type ProposedSetting, proposedSettings } from './proposal.ts';
import type { SetupScene, SetupStep } from './scene.ts';

/** Lines that are proposed: the nearest is applied, the others are offered. */
const OFFERED = 3;
/** What a stop of luminance outside a line's band counts, in OKLab distance: exposure is not known. */
const STOP = 0.02;
/** The usual deviation of log luminance at each level of contrast, and what twice or half of it counts. */
const USUAL = [0.08, 0.25, 0.45];
const TWICE = 0.01;
/** What counts against a line that is rare. */
const RARE = 0.03;
const FLOOR = 0.01;

/** What a surface looks like: the median colour, and how strongly it varies. */
export interface Appearance {
  /** Linear sRGB. */
  colour: [number, number, number];
  /** Deviation of log luminance. */
  variation: number;
}

/** The appearance of a picture, linear sRGB. */
export function appearanceOf({ planes }: Raster): Appearance {
  const [r, g, b] = planes;
  const logs = r.map((value, i) => Math.log(luminanceOf(value, g[i], b[i]) + FLOOR));
  return { colour: [median(r), median(g), median(b)], variation: statistics(logs).deviation };
}

/** How far a line of the chart is from an appearance, by colour, brightness and contrast; null where its look is not known. */
function distanceTo(line: ChartLine, { colour, variation }: Appearance): number | null {
  if (line.kind !== 'dielectric' || !line.swatch || line.contrast === undefined) return null;
  const y = Math.max(1e-4, luminanceOf(...colour));
  const swatch = linearOfHex(line.swatch);
  const ownY = luminanceOf(...swatch);
  // Hue and saturation at the same lightness.
  const [, a, b] = linearToOklab(...(colour.map((value) => (value * ownY) / y) as typeof colour));
  const [, ownA, ownB] = linearToOklab(...swatch);
  const [low, high] = line.reflectance;
  const stops = Math.max(0, Math.log2(low / y), Math.log2(y / high));
  const octaves = Math.abs(Math.log2(Math.max(0.02, variation) / USUAL[line.contrast]));
  return Math.hypot(a - ownA, b - ownB) + STOP * stops + TWICE * octaves + (line.rare ? RARE : 0);
}

/** The lines of the built-in chart that look most like a surface, the nearest first. */
export function nearestLines(appearance: Appearance): ChartLine[] {
  return CHART.lines
    .map((line) => ({ line, distance: distanceTo(line, appearance) }))
    .filter((one) => one.distance !== null)
    .sort((p, q) => p.distance! - q.distance!)
    .map(({ line }) => line);
}

/** One choice serves Gauge and Finish. */
const lineSettings = ({ recipe }: SetupScene, line: ChartLine): ProposedSetting[] => [
  ...proposedSettings(recipe, 'gauge', { line: line.id }),
  ...proposedSettings(recipe, 'finish', { line: line.id }),
];

/** The reference material that the tile looks most like: a guess, until it is confirmed. */
export const proposeMaterial: SetupStep = async (scene) => {
  const { gauge, finish } = scene.recipe.stations;
  if (gauge.line !== 'none' || finish.line !== 'none') return [];
  const { outputs } = await scene.evaluate('join');
  const found = nearestLines(appearanceOf(outputs.join!.picture)).slice(0, OFFERED);
  const [first, ...others] = found;
  return [
    {
      id: 'material',
      station: 'gauge',
      title: first.name,
      reason: `By colour, brightness and contrast it looks most like ${first.name}. Next: ${others.map(({ name }) => name).join('; ')}.`,
      settings: lineSettings(scene, first),
      isGuess: true,
      alternatives: found.map((line) => ({
        title: line.name,
        swatch: line.swatch,
        settings: lineSettings(scene, line),
      })),
    },
  ];
};
