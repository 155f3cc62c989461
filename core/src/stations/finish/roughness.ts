import { KERNELS } from '../../kernels/kernels.ts';
import { madeInParts } from '../../planes/made-in-parts.ts';
import { summing } from '../../planes/summing.ts';
import { inParts, type Steps } from '../../work/steps.ts';
import { type Curve, curveAt, curveTable, isStraight } from './curve.ts';

const LOG_FLOOR = 0.01;

/** Centre and spread of log luminance, settled at the working size. */
export interface ToneScale {
  centre: number;
  spread: number;
}

export const logTone = (luminance: Float32Array) => KERNELS.logPlane(luminance, LOG_FLOOR);

/** Brightness −0.5..0.5 about the tile's middle, full at two spreads. */
export function* toneAbout(luminance: Float32Array, { centre, spread }: ToneScale): Steps<Float32Array> {
  const gain = spread > 0 ? 1 / (4 * spread) : 0;
  const log = yield* madeInParts(luminance.length, (from, to) => logTone(luminance.subarray(from, to)));
  return yield* summing([log], [gain], { base: -gain * centre, low: -0.5, high: 0.5 }, log);
}

/**
 * One thing that roughness is made from: `gain` · values + `base` lies about 0; how much of that, −1..1; positive: rougher where
 * it is high.
 */
export interface Contribution {
  amount: number;
  values: Float32Array;
  gain?: number;
  base?: number;
}

/** Values raised to a power and bent by a curve, in place. */
function bent(values: Float32Array, power: number, table: ReturnType<typeof curveTable>): void {
  for (let i = 0; i < values.length; i++) {
    values[i] = curveAt(table, power === 1 ? values[i] : values[i] ** power);
  }
}

/**
 * What contributions come to, 0..1: added about the middle and clamped, then bent by a power of two (`balance`: below 0
 * most of the tile is rough, above 0 most is smooth) and by a tone curve.
 */
export function* stacked(
  contributions: readonly Contribution[],
  count: number,
  { balance, points }: { balance: number; points: Curve },
): Steps<Float32Array> {
  const taken = contributions.filter(({ amount }) => amount !== 0);
  const base = taken.reduce((sum, { amount, base = 0 }) => sum + amount * base, 0.5);
  const middle = { base, low: 0, high: 1 };
  const out =
    taken.length === 0
      ? new Float32Array(count).fill(0.5)
      : yield* summing(
          taken.map(({ values }) => values),
          taken.map(({ amount, gain = 1 }) => amount * gain),
          middle,
        );
  const power = 2 ** balance;
  if (power === 1 && isStraight(points)) return out;
  const table = curveTable(points);
  yield* inParts(count, (from, to) => bent(out.subarray(from, to), power, table));
  return out;
}

/** A stack laid into a band: perceptual roughness 0..1, α = roughness² for GGX. */
export const intoBand = (
  stack: Float32Array,
  [low, high]: readonly [number, number],
  out?: Float32Array,
): Steps<Float32Array> =>
  summing([stack], [high - low], { base: low, low: Math.min(low, high), high: Math.max(low, high) }, out);
