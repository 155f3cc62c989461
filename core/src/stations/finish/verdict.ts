import { lineOf } from '../../chart/chart.ts';
import { findingPercentiles } from '../../statistics/histogram.ts';
import { isOneColour } from '../../statistics/one-colour.ts';
import { mean } from '../../statistics/statistics.ts';
import { thinned } from '../../statistics/thinned.ts';
import { excessShare } from '../../surface/convert.ts';
import type { WorkContext } from '../../team/context.ts';
import type { Frame } from '../../tile/frame.ts';
import type { Verdict } from '../../verdict.ts';
import { runSteps } from '../../work/steps.ts';
import type { FinishInput } from './input.ts';
import type { FinishOutput } from './output.ts';
import type { FinishSettings } from './settings.ts';

/** A map that stays within two codes of eight bits holds one value. */
const NO_CHANGE = 2 / 255;

function isOne(values: Float32Array): boolean {
  let [low, high] = [values[0], values[0]];
  for (let i = 1; i < values.length && high - low < NO_CHANGE; i++) {
    low = Math.min(low, values[i]);
    high = Math.max(high, values[i]);
  }
  return high - low < NO_CHANGE;
}

const short = (value: number) => value.toFixed(3).replace(/0$/, '');

/** Maps for which one value would do, each with that value, in words. */
function constants({ roughness, f0, metallic }: FinishOutput, { relief }: FinishInput): string[] {
  const found: string[] = [];
  const say = (name: string, plane: Float32Array) => {
    if (isOne(plane)) found.push(`${name} (${short(plane[0])})`);
  };
  say('roughness', roughness);
  if (typeof metallic === 'number') found.push(`metallic (${metallic})`);
  else say('metallic', metallic);
  if (Array.isArray(f0)) found.push(f0[0] === f0[1] && f0[1] === f0[2] ? `F0 (${short(f0[0])})` : 'F0');
  else if (f0.planes.every(isOne)) found.push(`F0 (${short(f0.planes[1][0])})`);
  if (relief.occlusion) say('occlusion', relief.occlusion);
  return found;
}

/** How rough and how mirroring it came out, what disagrees, and which maps one value would do for. */
export async function verdict(
  output: FinishOutput,
  input: FinishInput,
  chosen: FinishSettings,
  _decided: unknown,
  frame: Frame,
  { checkpoint }: Pick<WorkContext, 'checkpoint'>,
): Promise<Verdict> {
  const { f0, metallic } = output;
  const percentiles = async (plane: Float32Array, ranks: number[]) => {
    const few = thinned(plane);
    await checkpoint(1);
    return runSteps(findingPercentiles(few, ranks), checkpoint);
  };
  const [low, middle, high] = await percentiles(output.roughness, [2, 50, 98]);
  const line = lineOf(chosen);
  const isSet = typeof metallic === 'number';
  const odd = line !== null && isSet && (line.kind === 'metal') !== (metallic === 1);
  const isUnset = line === null && !chosen.ownBand && chosen.f0From === 'line' && !output.isTruth;
  // Of one colour nothing says what it is; coats bring values of their own.
  const noLine = isUnset && !isOneColour(input.style.picture);
  const [f0Low, f0High] = Array.isArray(f0)
    ? [Math.min(...f0), Math.max(...f0)]
    : await percentiles(f0.planes[1], [2, 98]);
  const f0Words = f0High - f0Low < 5e-4 ? f0Low.toFixed(3) : `${f0Low.toFixed(3)}–${f0High.toFixed(3)}`;
  const metalShare = isSet ? metallic : mean(thinned(metallic));
  const excess =
    output.isTruth && !Array.isArray(f0)
      ? excessShare(input.style.picture.planes.map(thinned), f0.planes.map(thinned))
      : 0;
  const empty = chosen.zoneFinish.filter((one) => !frame.masks.some(({ id }) => id === one.zone));
  await checkpoint(1);
  const flat = constants(output, input);
  const advice = [
    noLine ? 'Choose the reference for this surface: a generic default is used until then.' : '',
    excess > 0.01
      ? `Diffuse and specular together reflect more light than they receive on ${(100 * excess).toFixed(0)} % of the tile: one of them is too bright.`
      : '',
    empty.length > 0 ? 'A deleted zone still has values.' : '',
  ];
  return {
    state: odd || noLine || excess > 0.01 ? 'look' : 'fine',
    brief: `rough ${low.toFixed(2)}–${high.toFixed(2)}`,
    sentence: `Roughness runs from ${low.toFixed(2)} to ${high.toFixed(2)} (middle ${middle.toFixed(2)}); F0 ${f0Words}; ${isSet ? `metallic ${metallic}` : `${(100 * metalShare).toFixed(0)} % is metal`}.${flat.length > 0 ? ` One value is enough here: ${flat.join(', ')}.` : ''}`,
    advice: advice.filter(Boolean).join(' '),
    remedies: odd
      ? [
          {
            advice: 'Metallic disagrees with the line: set it as the line has it, or choose another line.',
            words: 'Metallic as the line',
            settings: [{ station: 'finish', key: 'metal', value: 'line' }],
          },
        ]
      : [],
    figures: [
      { id: 'low', label: 'Roughness, 2 %', value: low, unit: '' },
      { id: 'middle', label: 'Roughness, median', value: middle, unit: '' },
      { id: 'high', label: 'Roughness, 98 %', value: high, unit: '' },
      { id: 'f0', label: 'F0, 98 %', value: f0High, unit: '' },
      { id: 'metal', label: 'Metal', value: 100 * metalShare, unit: '%' },
      ...(output.isTruth
        ? [{ id: 'excess', label: 'Energy above 100 %', value: 100 * excess, unit: '%', limit: 1 }]
        : []),
    ],
  };
}
