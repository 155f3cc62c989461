import * as v from 'valibot';
import { linearOfHex } from '../../../colour/hex.ts';
import { linearToOklab, oklabToLinear } from '../../../colour/oklab.ts';
import { srgbCode } from '../../../colour/srgb.ts';
import { KERNELS } from '../../../kernels/kernels.ts';
import { PLANES } from '../../../memory/pool.ts';
import { choice, data, number } from '../../../settings/kinds.ts';
import type { SurfaceChannel } from '../../../surface/surface.ts';
import { GIVEN_MAPS } from '../../../tile/given.ts';
import { inParts, runSteps, type Steps } from '../../../work/steps.ts';
import { CHANNELS, isColourChannel, LAYERS } from '../layers.ts';
import { RANGE_MAPS, RANGE_NAMES, READ_FROM, valuesOf } from '../mask/range.ts';
import { valueKind } from './kind.ts';

const stopsSchema = v.pipe(
  v.array(
    v.strictObject({
      /** Where on the ramp, 0..1. */
      at: v.pipe(v.number(), v.minValue(0), v.maxValue(1)),
      /** sRGB. */
      colour: v.pipe(v.string(), v.regex(/^#[0-9a-f]{6}$/i, 'must be a colour such as #8a7f70')),
      /** For channels of single values, 0..1. */
      value: v.pipe(v.number(), v.minValue(0), v.maxValue(1)),
    }),
  ),
  v.minLength(1, 'must have at least one stop'),
  v.maxLength(32, 'must have at most 32 stops'),
);
export type RampStop = v.InferOutput<typeof stopsSchema>[number];

const DRIVERS = ['mask', 'part', ...RANGE_MAPS] as const;

/** What of a mask part can drive a ramp. */
const PART_PLANES = ['cover', 'profile', 'value', 'edge'] as const;

export const RAMP_KINDS = ['linear', 'smooth', 'stepped'] as const;
export type RampKind = (typeof RAMP_KINDS)[number];

/** Entries of a ramp that is looked up. */
const ENTRIES = 1024;

/** Values of stops at every place of a ramp, by its kind; `of` gives the numbers of a stop. Stops may come in any order. */
function tableOf(
  stops: readonly RampStop[],
  kind: RampKind,
  of: (stop: RampStop) => readonly number[],
): Float32Array[] {
  const sorted = [...stops].sort((a, b) => a.at - b.at);
  const numbers = sorted.map(of);
  const tables = numbers[0].map(() => new Float32Array(ENTRIES + 1));
  let next = 0;
  for (let k = 0; k <= ENTRIES; k++) {
    const at = k / ENTRIES;
    while (next < sorted.length && sorted[next].at <= at) next++;
    const low = Math.max(0, next - 1);
    const high = Math.min(sorted.length - 1, next);
    const range = sorted[high].at - sorted[low].at;
    const share =
      kind === 'stepped' || range <= 0 ? 0 : Math.min(1, Math.max(0, (at - sorted[low].at) / range));
    const t = kind === 'smooth' ? share * share * (3 - 2 * share) : share;
    for (const [c, table] of tables.entries()) {
      table[k] = numbers[low][c] + t * (numbers[high][c] - numbers[low][c]);
    }
  }
  return tables;
}

/** A ramp of colours as linear RGB, interpolated in OKLab (Ottosson 2020), at a number of even places. */
export function colourRamp(stops: readonly RampStop[], kind: RampKind): Float32Array[] {
  const lab = tableOf(stops, kind, ({ colour }) => linearToOklab(...linearOfHex(colour)));
  for (let k = 0; k < lab[0].length; k++) {
    const rgb = oklabToLinear(lab[0][k], lab[1][k], lab[2][k]);
    for (let c = 0; c < 3; c++) lab[c][k] = Math.min(1, Math.max(0, rgb[c]));
  }
  return lab;
}

/** A ramp of single values at a number of even places. */
export const valueRamp = (stops: readonly RampStop[], kind: RampKind): Float32Array =>
  tableOf(stops, kind, ({ value }) => [value])[0];

/** A ramp as sRGB codes with full alpha, as wide as it is to be shown; single values as greys. */
export function rampColours(
  stops: readonly RampStop[],
  kind: RampKind,
  isColour: boolean,
  width: number,
): Uint8ClampedArray<ArrayBuffer> {
  const grey = isColour ? null : valueRamp(stops, kind);
  const planes = grey ? [grey, grey, grey] : colourRamp(stops, kind);
  const out = new Uint8ClampedArray(4 * width).fill(255);
  for (let x = 0; x < width; x++) {
    const k = Math.round(((x + 0.5) / width) * ENTRIES);
    for (let c = 0; c < 3; c++) {
      const value = planes[c][k];
      out[4 * x + c] = grey ? Math.round(255 * value) : srgbCode(value);
    }
  }
  return out;
}

/** Looks a driver up in the table of a ramp. */
function* looked(driver: SurfaceChannel, table: Float32Array): Steps<SurfaceChannel> {
  if (typeof driver === 'number') return KERNELS.lookUp(Float32Array.of(driver), [table])[0][0];
  const out = PLANES.take(driver.length);
  yield* inParts(driver.length, (from, to) => {
    const [part] = KERNELS.lookUp(driver.subarray(from, to), [table]);
    out.set(part, from);
    PLANES.give(part);
  });
  return out;
}

/** Colours or values along a ramp, by what drives it. */
export const ramp = valueKind({
  title: 'Ramp',
  channels: CHANNELS,
  settings: {
    driver: choice({
      label: 'Driven by',
      help: 'Whose values 0 to 1 run along the ramp: the coat’s mask, one of its parts, or a map below.',
      default: 'tone',
      options: DRIVERS,
      names: ['Mask', 'Mask part', ...RANGE_NAMES],
    }),
    part: number({
      label: 'Part',
      help: 'Which part of the mask, from the first.',
      default: 1,
      min: 1,
      max: 12,
      step: 1,
      unit: '',
    }),
    plane: choice({
      label: 'Of it',
      help: 'What it selects; the height profile of its cells or stamps; a random value for each; or the distance to the edge.',
      default: 'value',
      options: PART_PLANES,
      names: ['What it selects', 'Profile', 'One value each', 'Distance to the edge'],
    }),
    kind: choice({
      label: 'Between stops',
      help: 'How values go from stop to stop.',
      default: 'linear',
      options: RAMP_KINDS,
      names: ['Linear', 'Smooth', 'Stepped'],
    }),
    stops: data<RampStop[]>({
      label: 'Stops',
      help: 'Colours (or values) and where they are on the ramp.',
      default: [
        { at: 0, colour: '#3a2f22', value: 0 },
        { at: 1, colour: '#d8c8a4', value: 1 },
      ],
      schema: stopsSchema,
      example: '[{"at":0,"colour":"#3a2f22","value":0},{"at":1,"colour":"#d8c8a4","value":1}]',
      words: (stops) => (stops.length === 1 ? '1 stop' : `${stops.length} stops`),
    }),
    widthMm: number({
      label: 'Width',
      help: 'Of edge wear, where that drives it.',
      default: 10,
      min: 0.2,
      max: 1000,
      step: 0.2,
      unit: 'mm',
    }),
    degrees: number({
      label: 'Direction',
      help: 'Of facing, where that drives it: clockwise from the top of the picture.',
      default: 0,
      min: -180,
      max: 180,
      step: 1,
      unit: '°',
    }),
    supplied: choice({
      label: 'Which',
      help: 'The supplied map that drives it.',
      default: 'occlusion',
      options: GIVEN_MAPS,
      names: GIVEN_MAPS.map((map) => map[0].toUpperCase() + map.slice(1)),
    }),
    lowMm: number({
      label: 'Height at 0',
      help: 'For height: what a value of 0 comes to.',
      default: 0,
      min: -500,
      max: 500,
      step: 0.1,
      unit: 'mm',
    }),
    highMm: number({
      label: 'Height at 1',
      help: 'For height: what a value of 1 comes to.',
      default: 2,
      min: -500,
      max: 500,
      step: 0.1,
      unit: 'mm',
    }),
  },
  reads: ({ driver }) => (driver === 'mask' ? [] : driver === 'part' ? LAYERS : READ_FROM[driver]),
  async value({ driver, part, plane, kind, stops, lowMm, highMm, ...how }, channel, scene) {
    const driving = async () => {
      if (driver === 'mask') return { of: scene.cover, isOwn: false };
      if (driver === 'part') return { of: await scene.part(part - 1, plane), isOwn: false };
      return valuesOf(scene, driver, how);
    };
    const { of: values, isOwn } = await driving();
    if (!isColourChannel(channel)) {
      const table = valueRamp(stops, kind);
      const scaled = channel === 'height' ? table.map((t) => lowMm + t * (highMm - lowMm)) : table;
      const of = await runSteps(looked(values, scaled), scene.context.checkpoint);
      if (isOwn && typeof values !== 'number') scene.context.team.give(values);
      return { kind: 'single', of, isOwn: true };
    }
    const tables = colourRamp(stops, kind);
    if (typeof values !== 'number') return { kind: 'colour', of: { values, tables }, isOwn };
    const [r, g, b] = KERNELS.lookUp(Float32Array.of(values), tables).map(([value]) => value);
    return { kind: 'colour', of: [r, g, b] };
  },
});
