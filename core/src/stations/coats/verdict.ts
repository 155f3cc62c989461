import { takingLuminance } from '../../planes/luminance.ts';
import { median } from '../../statistics/statistics.ts';
import type { WorkContext } from '../../team/context.ts';
import type { Frame } from '../../tile/frame.ts';
import type { Verdict } from '../../verdict.ts';
import { runSteps } from '../../work/steps.ts';
import type { CoatsOutput } from './output.ts';
import type { CoatsInput } from './scene.ts';
import type { CoatsSettings } from './settings.ts';
import { coatsInUse } from './stack.ts';

/** Values of metallic that are neither metal nor not. */
const BETWEEN: [number, number] = [0.05, 0.95];
/** A difference in linear light, summed over the channels, that is a change. */
const CHANGED = 4 / 255;
/** Percent of the tile that may be half metal: edges between both are. */
const HALF_METAL = 5;

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

/** What the coats come to, measured on the finished surface. */
export async function verdict(
  output: CoatsOutput,
  input: CoatsInput,
  chosen: CoatsSettings,
  _decided: unknown,
  _frame: Frame,
  { checkpoint }: WorkContext,
): Promise<Verdict> {
  const inUse = coatsInUse(chosen).length;
  const changed = 100 * changedShare(output, input);
  await checkpoint(0.5);
  const half = inUse > 0 ? 100 * halfMetalShare(output) : 0;
  const y = median(await runSteps(takingLuminance(output.colour), checkpoint));
  const [low, high] = output.addedMm;
  const figures = [
    { id: 'changed', label: 'Colour changed', value: changed, unit: '%' },
    { id: 'median', label: 'Median albedo Y', value: y, unit: '' },
    { id: 'half', label: 'Neither metal nor not', value: half, unit: '%', limit: HALF_METAL },
    { id: 'lowered', label: 'Height lowered by', value: Math.abs(low), unit: 'mm' },
    { id: 'raised', label: 'Height raised by', value: high, unit: 'mm' },
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
  const isHalf = half > HALF_METAL;
  const heights = low === 0 && high === 0 ? '' : ` Height changes by ${signed(low)} to ${signed(high)} mm.`;
  return {
    state: isHalf ? 'look' : 'fine',
    brief: isHalf ? `half metal ${half.toFixed(0)} %` : inUse === 1 ? '1 coat' : `${inUse} coats`,
    sentence: `${inUse === 1 ? 'One coat changes' : `${inUse} coats change`} the colour of ${changed.toFixed(0)} % of the tile; its median is ${y.toFixed(3)}.${heights}`,
    advice: isHalf
      ? `${half.toFixed(0)} % of the tile is neither metal nor not: set metallic to 0 or 1, or harden the mask.`
      : '',
    figures,
  };
}

const signed = (mm: number) => `${mm <= -0.05 ? '−' : ''}${Math.abs(mm).toFixed(1)}`;
