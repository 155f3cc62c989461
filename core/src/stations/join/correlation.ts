import { fft2, inverseFft2, type Spectrum } from '../../fft/fft.ts';
import { blurring } from '../../filters/gaussian.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import { PLANES } from '../../memory/pool.ts';
import { MIRROR } from '../../raster/edges.ts';
import type { Checkpoint } from '../../work/checkpoint.ts';
import { PAUSE_ROWS, runSteps, type Steps } from '../../work/steps.ts';
import type { Vector } from './vectors.ts';

/** Lags up to this share of the shorter side are trusted: beyond it too little overlaps. */
const FARTHEST = 0.62;
/** The least correlation of a summit. */
export const PEAK = 0.08;
const PEAKS = 36;
const STRONG_SHARE = 0.55;
const CLAMP = 2.5;

/** The autocorrelation of a plane, at whole lags. */
export interface Correlation {
  /** Correlation at whole lags, −radius…radius on both axes. */
  values: Float32Array;
  radius: number;
}

function squaresOf(plane: Float32Array): Float32Array {
  const out = PLANES.take(plane.length);
  for (let i = 0; i < plane.length; i++) out[i] = plane[i] * plane[i];
  return out;
}

/** A plane over the root of its local power, held within bounds, in place. */
function overPower(plane: Float32Array, power: Float32Array): void {
  for (let i = 0; i < plane.length; i++) {
    const value = plane[i] / (Math.sqrt(Math.max(0, power[i])) + 1e-4);
    plane[i] = Math.min(CLAMP, Math.max(-CLAMP, value));
  }
}

/** The plane with broad light and uneven contrast removed. */
export function* levelled(plane: Float32Array, width: number, height: number): Steps<Float32Array> {
  const sigma = Math.max(width, height) / 14;
  const base = yield* blurring(plane, width, height, sigma, MIRROR);
  yield;
  const rest = KERNELS.sumPlanes([plane, base], [1, -1], {}, base);
  const squares = squaresOf(rest);
  yield;
  const power = yield* blurring(squares, width, height, sigma, MIRROR);
  PLANES.give(squares);
  yield;
  overPower(rest, power);
  PLANES.give(power);
  return rest;
}

/** Row `y` of the power spectra of picture (even part) and mask (odd part) by Hermitian symmetry, to go back in one transform. */
function powerRow(both: Spectrum, y: number, re: Float64Array, im: Float64Array): void {
  const n = both.width;
  const my = y === 0 ? 0 : n - y;
  for (let x = 0; x < n; x++) {
    const i = y * n + x;
    const j = my * n + (x === 0 ? 0 : n - x);
    const pr = (both.re[i] + both.re[j]) / 2;
    const pi = (both.im[i] - both.im[j]) / 2;
    const mr = (both.im[i] + both.im[j]) / 2;
    const mi = (both.re[j] - both.re[i]) / 2;
    re[i] = pr * pr + pi * pi;
    im[i] = mr * mr + mi * mi;
  }
}

/** A row of lags, from the middle one, as values by how many pixels overlap there. */
function overlapRow(
  { width: n, re, im }: Spectrum,
  y: number,
  radius: number,
  power: number,
  values: Float32Array,
): void {
  const row = ((y + n) % n) * n;
  const to = (y + radius) * (2 * radius + 1) + radius;
  for (let x = -radius; x <= radius; x++) {
    const i = row + ((x + n) % n);
    values[to + x] = re[i] / Math.max(1, im[i]) / power;
  }
}

/** Autocorrelation over the number of overlapping pixels; picture and mask share one transform. */
export async function correlate(
  plane: Float32Array,
  width: number,
  height: number,
  checkpoint: Checkpoint,
): Promise<Correlation> {
  const n = 2 ** Math.ceil(Math.log2(1.6 * Math.max(width, height)));
  const re = new Float64Array(n * n);
  const im = new Float64Array(n * n);
  for (let y = 0; y < height; y++) {
    re.set(plane.subarray(y * width, (y + 1) * width), y * n);
    im.fill(1, y * n, y * n + width);
  }
  await checkpoint(0);
  const both = await runSteps(fft2({ width: n, height: n, re, im }), checkpoint);
  await checkpoint(0);
  for (let y = 0; y < n; y++) {
    if (y % PAUSE_ROWS === 0) await checkpoint(0);
    powerRow(both, y, re, im);
  }
  await checkpoint(0);
  const back = await runSteps(inverseFft2({ width: n, height: n, re, im }), checkpoint);
  await checkpoint(0);
  const radius = Math.floor(FARTHEST * Math.min(width, height));
  const side = 2 * radius + 1;
  const values = new Float32Array(side * side);
  const power = back.re[0] / back.im[0];
  for (let y = -radius; y <= radius; y++) {
    if (y % PAUSE_ROWS === 0) await checkpoint(0);
    overlapRow(back, y, radius, Math.max(1e-12, power), values);
  }
  return { values, radius };
}

/** The correlation at a whole lag. */
export const valueAt = ({ values, radius }: Correlation, x: number, y: number): number =>
  values[(y + radius) * (2 * radius + 1) + x + radius];

/** Bilinear value; NaN beyond the trusted lags. */
export function between(c: Correlation, x: number, y: number): number {
  if (Math.abs(x) > c.radius - 1 || Math.abs(y) > c.radius - 1) return Number.NaN;
  const x0 = Math.floor(x);
  const y0 = Math.floor(y);
  const fx = x - x0;
  const fy = y - y0;
  return (
    (valueAt(c, x0, y0) * (1 - fx) + valueAt(c, x0 + 1, y0) * fx) * (1 - fy) +
    (valueAt(c, x0, y0 + 1) * (1 - fx) + valueAt(c, x0 + 1, y0 + 1) * fx) * fy
  );
}

/** The top of the parabola through three neighbours, −½…½. */
export function top(before: number, here: number, after: number): number {
  const bow = before - 2 * here + after;
  return bow < -1e-9 ? Math.min(0.5, Math.max(-0.5, (before - after) / (2 * bow))) : 0;
}

/** A summit of the autocorrelation. */
export interface Peak {
  at: Vector;
  value: number;
}

/** The summit at or beside a whole lag, to a part of a pixel. */
export function summit(c: Correlation, x: number, y: number): Peak {
  const here = valueAt(c, x, y);
  return {
    at: [
      x + top(valueAt(c, x - 1, y), here, valueAt(c, x + 1, y)),
      y + top(valueAt(c, x, y - 1), here, valueAt(c, x, y + 1)),
    ],
    value: here,
  };
}

/** Summits of row `y` of the lags. */
function peaksInRow(c: Correlation, y: number): Peak[] {
  const peaks: Peak[] = [];
  for (let x = y === 0 ? 3 : -c.radius + 3; x <= c.radius - 3; x++) {
    const here = valueAt(c, x, y);
    if (here < PEAK || x * x + y * y < 9) continue;
    let isTop = true;
    for (let j = -2; j <= 2 && isTop; j++) {
      for (let i = -2; i <= 2; i++) {
        if ((i !== 0 || j !== 0) && valueAt(c, x + i, y + j) > here) {
          isTop = false;
          break;
        }
      }
    }
    if (isTop) peaks.push(summit(c, x, y));
  }
  return peaks;
}

/** Length of a vector in pixels. */
export const lengthOf = ([x, y]: Vector) => Math.sqrt(x * x + y * y);

/** Strong summits of one half of the plane of lags (the other is its mirror), shortest first. */
export function* peaksOf(c: Correlation): Steps<Peak[]> {
  const peaks: Peak[] = [];
  for (let y = 0; y <= c.radius - 3; y++) {
    if (y % PAUSE_ROWS === 0) yield;
    peaks.push(...peaksInRow(c, y));
  }
  yield;
  // Of the strong ones the shortest: a fine pattern has hundreds, and its cell lies among the first.
  const highest = peaks.reduce((most, { value }) => Math.max(most, value), 0);
  return peaks
    .filter(({ value }) => value >= STRONG_SHARE * highest)
    .sort((a, b) => lengthOf(a.at) - lengthOf(b.at))
    .slice(0, PEAKS);
}
