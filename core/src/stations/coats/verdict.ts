import { albedoBand, albedoLimits, CHART, type ChartLine } from '../../chart/chart.ts';
import { takingLuminance } from '../../planes/luminance.ts';
import { findingPercentiles } from '../../statistics/histogram.ts';
import { median } from '../../statistics/statistics.ts';
import { channelAt, type SurfaceChannel } from '../../surface/surface.ts';
import type { WorkContext } from '../../team/context.ts';
import type { Frame } from '../../tile/frame.ts';
import type { Verdict } from '../../verdict.ts';
import { runSteps } from '../../work/steps.ts';
import { StepTally } from '../join/seam.ts';
import { coatFace } from './climb.ts';
import { KEPT_SIZE } from './kept.ts';
import type { CoatsOutput } from './output.ts';
import type { CoatsInput } from './scene.ts';
import type { CoatsSettings } from './settings.ts';
import { coatsInUse, colourLine, type UsedCoat } from './stack.ts';
import { type PaintedLight, shadeOf } from './value/light.ts';

/** Values of metallic that are neither metal nor not. */
const BETWEEN: [number, number] = [0.05, 0.95];
/** A difference in linear light, summed over the channels, that is a change. */
const CHANGED = 4 / 255;
/** Percent of the tile that may be half metal: edges between both are. */
const HALF_METAL = 5;
/** Percent of the tile that may lie beyond any real surface. */
const BEYOND = 1;
/** Percent of the colour's variance that painted light may explain before it is a matter of taste no more. */
const LIGHT = 40;
/** A step over the edge as large as this many usual steps shows, where it was less below the coats. */
const SEAM = 1.5;

/** Share of pixels whose colour coats changed, 0..1. */
function changedShare({ colour }: CoatsOutput, { gauge: { albedo } }: CoatsInput): number {
  if (colour === albedo) return 0;
  let count = 0;
  const [r, g, b] = colour.planes;
  const [r0, g0, b0] = albedo.planes;
  for (let i = 0; i < r.length; i++) {
    if (Math.abs(r[i] - r0[i]) + Math.abs(g[i] - g0[i]) + Math.abs(b[i] - b0[i]) > CHANGED) count++;
  }
  return count / r.length;
}

function halfMetalShare({ metallic }: CoatsOutput): number {
  if (typeof metallic === 'number') return metallic > BETWEEN[0] && metallic < BETWEEN[1] ? 1 : 0;
  let count = 0;
  for (const value of metallic) if (value > BETWEEN[0] && value < BETWEEN[1]) count++;
  return count / metallic.length;
}

/** Share of pixels that are darker or brighter than any surface of their kind, 0..1. */
function beyondShare(y: Float32Array, metallic: SurfaceChannel): number {
  const [low, high] = albedoLimits(null);
  const floorOfMetal = CHART.limits.metalF0LuminanceFloor;
  let count = 0;
  for (let i = 0; i < y.length; i++) {
    const isMetal = channelAt(metallic, i) > 0.5;
    const [from, to] = isMetal ? [floorOfMetal, 1] : [low, high];
    if (y[i] < from - CHANGED / 8 || y[i] > to + CHANGED / 8) count++;
  }
  return count / y.length;
}

/** Share of the variance of a colour's lightness that the shading of its own relief by a light explains, 0..1. */
function lightShare(y: Float32Array, output: CoatsOutput, light: PaintedLight, green: 1 | -1): number {
  const shade = shadeOf(output.normal.planes, output.occlusion, light, green);
  let [sx, sy, sxx, syy, sxy] = [0, 0, 0, 0, 0];
  for (let i = 0; i < y.length; i++) {
    const a = Math.log(Math.max(1e-3, shade(i)));
    const b = Math.log(Math.max(1e-3, y[i]));
    sx += a;
    sy += b;
    sxx += a * a;
    syy += b * b;
    sxy += a * b;
  }
  const n = y.length;
  const [va, vb, cov] = [sxx / n - (sx / n) ** 2, syy / n - (sy / n) ** 2, sxy / n - (sx / n) * (sy / n)];
  return va > 1e-9 && vb > 1e-9 ? Math.min(1, cov ** 2 / (va * vb)) : 0;
}

/** How strong the step over the tile's edge is against steps within, the worse axis; 0 where it is one colour. */
function seamOf(planes: readonly Float32Array[], { width, height, edges }: Frame): number {
  const tally = new StepTally(width, height);
  tally.add([...planes]);
  if (tally.isUniform) return 0;
  const { seamX, seamY } = tally.figures();
  return Math.max(edges.x === 'wrap' ? seamX : 0, edges.y === 'wrap' ? seamY : 0);
}

/** Whether a coat repeats a picture or another tile, which may not meet itself. What coats draw themselves always does. */
const repeatsPicture = ({ coat, groups }: UsedCoat): boolean =>
  coat.outputs.some((one) => one.by === 'tile' || (one.by === 'picture' && one.placing === 'repeated')) ||
  [coat, ...groups].some(({ parts }) =>
    parts.some((part) => part.by === 'picture' && part.placing === 'repeated'),
  );

interface LineFound {
  line: ChartLine;
  coat: string;
  median: number;
  isOff: boolean;
}

/** The median of the finished colour where a coat with a chart line covers it, against that line's band. */
async function lineMedians(
  y: Float32Array,
  input: CoatsInput,
  chosen: CoatsSettings,
  frame: Frame,
  context: WorkContext,
): Promise<LineFound[]> {
  if (frame.size > KEPT_SIZE) return [];
  const found: LineFound[] = [];
  for (const { coat } of coatsInUse(chosen)) {
    const line = colourLine(coat);
    if (!line) continue;
    const face = await coatFace(coat.id, chosen, input, frame, context);
    const values = y.filter((_value, i) => face[i] !== 0);
    if (values.length === 0) continue;
    const middle = median(values);
    const [low, high] = albedoBand(line);
    found.push({ line, coat: coat.name, median: middle, isOff: middle < low || middle > high });
  }
  return found;
}

interface Measured {
  changed: number;
  half: number;
  beyond: number;
  light: number;
  seam: number;
  seamBelow: number;
  lines: LineFound[];
}

/** What is to be looked at, in the order of its weight: its words on the Course, and what to do. */
function concerns({
  half,
  beyond,
  seam,
  seamBelow,
  light,
  lines,
}: Measured): [brief: string, advice: string][] {
  const found: [string, string][] = [];
  if (half > HALF_METAL) {
    found.push([
      `half metal ${half.toFixed(0)} %`,
      `${half.toFixed(0)} % of the tile is neither metal nor not: set metallic to 0 or 1, or harden the mask.`,
    ]);
  }
  if (seam > SEAM && seam > 1.2 * seamBelow) {
    found.push([
      `edge ${seam.toFixed(1)} ×`,
      `At the tile’s edge the colour steps ${seam.toFixed(1)} times as far as within: a picture of a coat does not tile. Lay it once, or use one that meets itself.`,
    ]);
  }
  if (beyond > BEYOND) {
    found.push([
      `${beyond.toFixed(0)} % beyond`,
      `${beyond.toFixed(1)} % of the tile is darker or brighter than any surface of its kind: bring the colours of the coats within what Gauge hatches.`,
    ]);
  }
  const off = lines.find(({ isOff }) => isOff);
  if (off) {
    found.push([
      `${off.coat} off`,
      `Where “${off.coat}” is, the median is ${off.median.toFixed(3)}, outside the band of ${off.line.name}: a coat above it changes it.`,
    ]);
  }
  if (light > LIGHT) {
    found.push([
      `light ${light.toFixed(0)} %`,
      `Painted light explains ${light.toFixed(0)} % of the colour’s variance: under a light of the game it will be lit twice.`,
    ]);
  }
  return found;
}

/** What the coats come to, measured on the finished surface. */
export async function verdict(
  output: CoatsOutput,
  input: CoatsInput,
  chosen: CoatsSettings,
  _decided: unknown,
  frame: Frame,
  context: WorkContext,
): Promise<Verdict> {
  const used = coatsInUse(chosen);
  const inUse = used.length;
  const y = await runSteps(takingLuminance(output.colour), context.checkpoint);
  const lights = used.flatMap(({ coat }) => coat.outputs.filter((one) => one.by === 'light' && one.on));
  const repeats = used.some(repeatsPicture);
  // A copy of all values, as exact percentiles take one, would be the largest thing that a set has to hold.
  const [middle] = await runSteps(findingPercentiles(y, [50]), context.checkpoint);
  await context.checkpoint(0.3);
  const measured: Measured = {
    changed: 100 * changedShare(output, input),
    half: inUse > 0 ? 100 * halfMetalShare(output) : 0,
    beyond: inUse > 0 ? 100 * beyondShare(y, output.metallic) : 0,
    light: 100 * Math.max(0, ...lights.map((one) => lightShare(y, output, one as PaintedLight, frame.green))),
    seam: repeats ? seamOf(output.colour.planes, frame) : 0,
    seamBelow: repeats ? seamOf(input.gauge.albedo.planes, frame) : 0,
    lines: await lineMedians(y, input, chosen, frame, context),
  };
  await context.checkpoint(0.8);
  const [low, high] = output.addedMm;
  const figures = [
    { id: 'changed', label: 'Colour changed', value: measured.changed, unit: '%' },
    { id: 'median', label: 'Median albedo Y', value: middle, unit: '' },
    { id: 'beyond', label: 'Beyond any surface', value: measured.beyond, unit: '%', limit: BEYOND },
    { id: 'half', label: 'Neither metal nor not', value: measured.half, unit: '%', limit: HALF_METAL },
    { id: 'light', label: 'Light painted in', value: measured.light, unit: '%', limit: LIGHT },
    { id: 'lowered', label: 'Height lowered by', value: Math.abs(low), unit: 'mm' },
    { id: 'raised', label: 'Height raised by', value: high, unit: 'mm' },
    ...measured.lines.map(({ coat, line, median: value }, k) => ({
      id: `line-${k}`,
      label: `Median of ${coat}, ${line.name}`,
      value,
      unit: '',
    })),
  ];
  if (inUse === 0) {
    return {
      state: 'fine',
      brief: 'none',
      sentence: 'No coat has an effect: the tile is as Finish left it.',
      advice: '',
      figures,
    };
  }
  const found = concerns(measured);
  const heights = low === 0 && high === 0 ? '' : ` Height changes by ${signed(low)} to ${signed(high)} mm.`;
  return {
    state: found.length > 0 ? 'look' : 'fine',
    brief: found[0]?.[0] ?? (inUse === 1 ? '1 coat' : `${inUse} coats`),
    sentence: `${inUse === 1 ? 'One coat changes' : `${inUse} coats change`} the colour of ${measured.changed.toFixed(0)} % of the tile; its median is ${middle.toFixed(3)}.${heights}`,
    advice: found[0]?.[1] ?? '',
    figures,
  };
}

const signed = (mm: number) => `${mm <= -0.05 ? '−' : ''}${Math.abs(mm).toFixed(1)}`;
