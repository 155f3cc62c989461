import { mapped } from '../../raster/mapped.ts';
import { type Curve, curveAt, curveTable, isStraight } from './curve.ts';

const LOG_FLOOR = 0.01;

/** Centre and spread of log luminance, settled at the working size. */
export interface ToneScale {
  centre: number;
  spread: number;
}

export const logTone = (y: number) => Math.log(Math.max(0, y) + LOG_FLOOR);

/** Brightness −0.5..0.5 about the tile's middle, full at two spreads. */
export function toneAbout(luminance: Float32Array, { centre, spread }: ToneScale): Float32Array {
  const gain = spread > 0 ? 1 / (4 * spread) : 0;
  return mapped(luminance, (y) => Math.min(0.5, Math.max(-0.5, gain * (logTone(y) - centre))));
}

/** One thing that roughness is made from: values about 0, and how much of them, −1..1; positive: rougher where they are high. */
export interface Contribution {
  amount: number;
  values: Float32Array;
}

/**
 * What contributions come to, 0..1: added about the middle and clamped, then bent by a power of two (`balance`: below 0
 * most of the tile is rough, above 0 most is smooth) and by a tone curve.
 */
export function stacked(
  contributions: readonly Contribution[],
  count: number,
  { balance, points }: { balance: number; points: Curve },
): Float32Array {
  const out = new Float32Array(count).fill(0.5);
  for (const { amount, values } of contributions) {
    if (amount !== 0) for (let i = 0; i < count; i++) out[i] += amount * values[i];
  }
  const power = 2 ** balance;
  if (power === 1 && isStraight(points)) {
    for (let i = 0; i < count; i++) out[i] = Math.min(1, Math.max(0, out[i]));
    return out;
  }
  const table = curveTable(points);
  for (let i = 0; i < count; i++) {
    const clamped = Math.min(1, Math.max(0, out[i]));
    out[i] = curveAt(table, power === 1 ? clamped : clamped ** power);
  }
  return out;
}

/** A stack laid into a band: perceptual roughness 0..1, α = roughness² for GGX. */
export const intoBand = (stack: Float32Array, [low, high]: readonly [number, number]): Float32Array =>
  mapped(stack, (value) => low + (high - low) * value);
