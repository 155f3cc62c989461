import * as v from 'valibot';
import { type ChartLine, lineF0, lineOf } from '../../chart/chart.ts';
import { linearOfHex } from '../../colour/hex.ts';
import { essenceOf, masksInUse } from '../../masks/in-use.ts';
import type { Mask } from '../../masks/mask.ts';
import { PLANES } from '../../memory/pool.ts';
import { luminance, takingLuminance } from '../../planes/luminance.ts';
import { mapping } from '../../planes/mapped.ts';
import { summing } from '../../planes/summing.ts';
import { Raster } from '../../raster/raster.ts';
import { repeated } from '../../sampling/repeat.ts';
import { median } from '../../statistics/statistics.ts';
import type { WorkContext } from '../../team/context.ts';
import type { Frame } from '../../tile/frame.ts';
import { runSteps, type Steps } from '../../work/steps.ts';
import { relief } from '../relief/station.ts';
import { station } from '../station.ts';
import { style } from '../style/station.ts';
import type { FinishInput } from './input.ts';
import { isMetal } from './metal.ts';
import { cellsFor, periodicNoise } from './noise.ts';
import type { FinishOutput } from './output.ts';
import { type Contribution, intoBand, logTone, stacked, type ToneScale, toneAbout } from './roughness.ts';
import { type FinishSettings, settings } from './settings.ts';
import { verdict } from './verdict.ts';
import { withZones } from './zones.ts';

const usedMasks = ({ zoneFinish }: Pick<FinishSettings, 'zoneFinish'>, masks: readonly Mask[]) =>
  masksInUse(masks, zoneFinish);

const DEFAULT_BAND: [number, number] = [0.5, 0.9];

/** The roughness band in effect, low before high. */
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
  const steepness = (z: number) => Math.sqrt(Math.max(0, 1 - z * z));
  await add(chosen.slope, () => runSteps(mapping(relief.normal.planes[2], steepness), context.checkpoint));
  await add(chosen.noise, () =>
    context.part('noise', [noiseMm, frame.edgeMetres, frame.seed], () =>
      runSteps(
        periodicNoise(frame, cellsFor(noiseMm, frame, frame.edgeMetres), frame.seed),
        context.checkpoint,
      ),
    ),
  );
  if (greyMap) {
    await add(chosen.grey, () =>
      context.part('grey', [greyMap.sha256, greyCount, greyQuarters], async () => {
        const picture = await context.picture(greyMap, frame.size, 1);
        const [plane] = repeated(picture, frame, { count: greyCount, quarters: greyQuarters }).planes;
        return runSteps(summing([plane], [1], { base: -0.5 }), context.checkpoint);
      }),
    );
  }
  return found;
}

/** F0 of the tile without its zones. */
function* plainF0(
  chosen: FinishSettings,
  line: ChartLine | null,
  tone: Float32Array,
  frame: Frame,
): Steps<FinishOutput['f0']> {
  if (chosen.f0From === 'colour') return linearOfHex(chosen.f0Colour);
  if (chosen.f0From === 'line') return lineF0(line);
  const { f0Low, f0High } = chosen;
  // Held, so that rounding goes past neither end.
  const range = { base: (f0Low + f0High) / 2, low: Math.min(f0Low, f0High), high: Math.max(f0Low, f0High) };
  const plane = yield* summing([tone], [f0High - f0Low], range);
  return new Raster(frame.width, frame.height, [plane, plane, plane]);
}

/** How far values lie from one, in place. */
function distances(values: Float32Array, from: number): Float32Array {
  for (let i = 0; i < values.length; i++) values[i] = Math.abs(values[i] - from);
  return values;
}

/** Finish: how smooth, how much it mirrors, metal or not. */
export const finish = station({
  name: 'finish',
  line: 'Set roughness, reflectance and metalness.',
  settings,
  reads: [style, relief],
  decidesFrom: [style],
  pictures: ({ greyMap }) => ({ grey: greyMap }),
  usedMasks,
  frameFacts: ({ edgeMetres }) => edgeMetres,
  cacheKey: (chosen, masks) => [chosen, essenceOf(usedMasks(chosen, masks))],
  shows: 'roughness',
  weight: 4,
  of: 'tile',
  measuredLast: true,
  decision: v.strictObject({ centre: v.number(), spread: v.number() }),
  decidesOn: () => null,
  async decide(input: Pick<FinishInput, 'style'>, _chosen, _frame, { checkpoint }): Promise<ToneScale> {
    const y = luminance(input.style.picture);
    const logs = logTone(y);
    await checkpoint(0);
    const centre = median(logs);
    await checkpoint(0);
    const spread = 1.4826 * median(distances(logs, centre));
    PLANES.give(y, logs);
    return { centre, spread };
  },
  async run(input: FinishInput, chosen, decided: ToneScale, frame, context): Promise<FinishOutput> {
    const line = lineOf(chosen);
    const { given, picture } = input.style;
    const count = frame.width * frame.height;
    const { checkpoint } = context;
    const tone = await context.part('tone', decided, async () => {
      const y = await runSteps(takingLuminance(picture), checkpoint);
      const about = await runSteps(toneAbout(y, decided), checkpoint);
      PLANES.give(y);
      return about;
    });
    const told = given.roughness?.planes[0] ?? given.gloss?.planes[0].map((value) => 1 - value);
    await checkpoint(0.2);
    const parts = told ? [] : await contributions(input, chosen, tone, frame, context);
    await checkpoint(0.4);
    const bend = { balance: chosen.curve, points: chosen.points };
    const stack = told ?? (await runSteps(stacked(parts, count, bend), checkpoint));
    await checkpoint(0.6);
    // Zones lay the stack into bands of their own.
    const own = frame.masks.length > 0 ? undefined : stack;
    const roughness = told
      ? Float32Array.from(told)
      : await runSteps(intoBand(stack, roughnessBand(chosen), own), checkpoint);
    const metallic: FinishOutput['metallic'] =
      chosen.metal === 'line' && given.metallic
        ? given.metallic.planes[0]
        : Number(isMetal(chosen.metal, line));
    const f0: FinishOutput['f0'] =
      given.specular ?? (await runSteps(plainF0(chosen, line, tone, frame), checkpoint));
    const plain = { roughness, f0, metallic, isTruth: given.specular !== undefined };
    return withZones(plain, stack, input, chosen, frame, context);
  },
  verdict,
});
