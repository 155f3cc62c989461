import * as v from 'valibot';
import { type ChartLine, lineF0, lineOf } from '../../chart/chart.ts';
import { linearOfHex } from '../../colour/hex.ts';
import { luminance } from '../../colour/luminance.ts';
import type { WorkContext } from '../../engine/context.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import { mapped } from '../../raster/mapped.ts';
import { PLANES } from '../../raster/pool.ts';
import { Raster } from '../../raster/raster.ts';
import { repeated } from '../../raster/repeat.ts';
import { median } from '../../raster/statistics.ts';
import { zoneCover } from '../../zones/cover.ts';
import { wetF0, wetRoughness } from '../../zones/wet.ts';
import { type FinishOutput, type Frame, type JoinOutput, type ReliefOutput, station } from '../types.ts';
import { cellsFor, periodicNoise } from './noise.ts';
import { type Contribution, intoBand, logTone, stacked, type ToneScale, toneAbout } from './roughness.ts';
import { type FinishSettings, settings } from './settings.ts';
import { verdict } from './verdict.ts';

/** What Finish reads: never Gauge, so that exposure moves no roughness. */
export interface FinishInput {
  join: JoinOutput;
  relief: ReliefOutput;
}

const DEFAULT_BAND: [number, number] = [0.5, 0.9];

/** The roughness band in force, low before high. */
export function roughnessBand(chosen: FinishSettings): [number, number] {
  if (chosen.ownBand) return [Math.min(chosen.low, chosen.high), Math.max(chosen.low, chosen.high)];
  return lineOf(chosen)?.roughness ?? DEFAULT_BAND;
}

/** Each contribution that has a part in the roughness, its values about 0. */
async function contributions(
  { relief }: FinishInput,
  chosen: FinishSettings,
  tone: Float32Array,
  frame: Frame,
  context: WorkContext,
): Promise<Contribution[]> {
  const { noiseMm, greyMap, greyCount, greyQuarters } = chosen;
  const found: Contribution[] = [{ amount: chosen.tone, values: tone }];
  const add = async (amount: number, make: () => Promise<Float32Array> | Float32Array) => {
    if (amount !== 0) found.push({ amount, values: await make() });
  };
  found.push({ amount: chosen.cavity, values: relief.cavity, gain: -1, base: 0.5 });
  // Occlusion that was not asked for has no part in it.
  if (relief.occlusion) found.push({ amount: chosen.occlusion, values: relief.occlusion, gain: -1, base: 1 });
  found.push({ amount: chosen.height, values: relief.height, base: -0.5 });
  await add(chosen.slope, () => mapped(relief.normal.planes[2], (z) => Math.sqrt(Math.max(0, 1 - z * z))));
  await add(chosen.noise, () =>
    context.part('noise', [noiseMm, frame.edgeMetres, frame.seed], () =>
      periodicNoise(frame, cellsFor(noiseMm, frame, frame.edgeMetres), frame.seed),
    ),
  );
  if (greyMap) {
    await add(chosen.grey, () =>
      context.part('grey', [greyMap.sha256, greyCount, greyQuarters], async () => {
        const picture = await context.picture(greyMap, frame.size, 1);
        const [plane] = repeated(picture, frame, { count: greyCount, quarters: greyQuarters }).planes;
        return KERNELS.sumPlanes([plane], [1], { base: -0.5 });
      }),
    );
  }
  return found;
}

/** F0 of the tile without its zones. */
function plainF0(
  chosen: FinishSettings,
  line: ChartLine | null,
  tone: Float32Array,
  frame: Frame,
): FinishOutput['f0'] {
  if (chosen.f0From === 'colour') return linearOfHex(chosen.f0Colour);
  if (chosen.f0From === 'line') return lineF0(line);
  const { f0Low, f0High } = chosen;
  // Held, so that rounding goes past neither end.
  const range = { base: (f0Low + f0High) / 2, low: Math.min(f0Low, f0High), high: Math.max(f0Low, f0High) };
  const plane = KERNELS.sumPlanes([tone], [f0High - f0Low], range);
  return new Raster(frame.width, frame.height, [plane, plane, plane]);
}

/** What is one value or a plane, laid over with another value where a zone covers it. */
function laidOver(under: number | Float32Array, value: number, cover: Float32Array): number | Float32Array {
  if (under === value) return under;
  return typeof under === 'number'
    ? mapped(cover, (share) => under + share * (value - under))
    : mapped(under, (old, i) => old + cover[i] * (value - old));
}

function f0Over(
  under: FinishOutput['f0'],
  to: (old: number, channel: number, i: number) => number,
  frame: Frame,
): Raster {
  const count = frame.width * frame.height;
  const plane = (c: number) => {
    const out = new Float32Array(count);
    for (let i = 0; i < count; i++) out[i] = to(Array.isArray(under) ? under[c] : under.planes[c][i], c, i);
    return out;
  };
  return new Raster(frame.width, frame.height, [plane(0), plane(1), plane(2)]);
}

const saysMetal = (metal: FinishSettings['metal'], line: ChartLine | null): boolean =>
  metal === 'line' ? line?.kind === 'metal' : metal === 'yes';

/** How far values lie from one, in place. */
function distances(values: Float32Array, from: number): Float32Array {
  for (let i = 0; i < values.length; i++) values[i] = Math.abs(values[i] - from);
  return values;
}

/** Finish: how smooth, how much it mirrors, metal or not. */
export const finish = station({
  name: 'finish',
  line: 'Say how smooth it is, how much it mirrors, and whether it is metal.',
  settings,
  decision: v.strictObject({ centre: v.number(), spread: v.number() }),
  decidesOn: () => null,
  async decide(input: Pick<FinishInput, 'join'>, _chosen, _frame, { breathe }): Promise<ToneScale> {
    const y = luminance(input.join.picture);
    const logs = logTone(y);
    await breathe(0);
    const centre = median(logs);
    await breathe(0);
    const spread = 1.4826 * median(distances(logs, centre));
    PLANES.give(y, logs);
    return { centre, spread };
  },
  async run(input: FinishInput, chosen, decided: ToneScale, frame, context): Promise<FinishOutput> {
    const line = lineOf(chosen);
    const { given, picture } = input.join;
    const count = frame.width * frame.height;
    const tone = await context.part('tone', decided, () => {
      const y = luminance(picture);
      const about = toneAbout(y, decided);
      PLANES.give(y);
      return about;
    });
    const told = given.roughness?.planes[0] ?? given.gloss?.planes[0].map((value) => 1 - value);
    await context.breathe(0.2);
    const parts = told ? [] : await contributions(input, chosen, tone, frame, context);
    await context.breathe(0.4);
    const stack = told ?? stacked(parts, count, { balance: chosen.curve, points: chosen.points });
    await context.breathe(0.6);
    // Zones lay the stack into bands of their own.
    const own = frame.zones.length > 0 ? undefined : stack;
    let roughness = told ? Float32Array.from(told) : intoBand(stack, roughnessBand(chosen), own);
    let metallic: FinishOutput['metallic'] =
      chosen.metal === 'line' && given.metallic
        ? given.metallic.planes[0]
        : Number(saysMetal(chosen.metal, line));
    let f0: FinishOutput['f0'] = given.specular ?? plainF0(chosen, line, tone, frame);
    for (const zone of frame.zones) {
      const values = chosen.zoneFinish.find((one) => one.zone === zone.id);
      if (!values && zone.wetness === 0) continue;
      const cover = await context.part('zone', zone.parts, () => zoneCover(zone, input, frame, context));
      await context.breathe(0.8);
      if (values) {
        const own = lineOf(values);
        const band = values.band ?? own?.roughness ?? null;
        if (band) {
          const laid = intoBand(stack, band);
          roughness = mapped(roughness, (old, i) => old + cover[i] * (laid[i] - old));
        }
        const ownF0 = values.f0 ? linearOfHex(values.f0) : own ? lineF0(own) : null;
        if (ownF0) f0 = f0Over(f0, (old, c, i) => old + cover[i] * (ownF0[c] - old), frame);
        if (values.metallic !== 'line' || own) {
          metallic = laidOver(metallic, Number(saysMetal(values.metallic, own)), cover);
        }
      }
      const { wetness } = zone;
      if (wetness > 0) {
        roughness = mapped(roughness, (dry, i) => wetRoughness(dry, wetness * cover[i]));
        f0 = f0Over(f0, (old, _c, i) => wetF0(old, wetness * cover[i]), frame);
      }
    }
    return { roughness, f0, metallic, isTruth: given.specular !== undefined };
  },
  verdict,
});
