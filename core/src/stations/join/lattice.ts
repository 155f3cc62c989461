import { fft2, inverseFft2, type Spectrum } from '../../fft/fft.ts';
import { blurring } from '../../filters/gaussian.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import { PLANES } from '../../memory/pool.ts';
import { MIRROR } from '../../raster/edges.ts';
import type { Checkpoint } from '../../work/checkpoint.ts';
import { PAUSE_ROWS, runSteps, type Steps } from '../../work/steps.ts';
import type { Vector } from './vectors.ts';

/** The repeat of a regular pattern. */
export interface Lattice {
  /** The shortest two vectors of the lattice, in pixels; only the first where it repeats in one direction. */
  a: Vector;
  b: Vector | null;
  /** Mean correlation at the lattice's own points, and how far it stands above the points between. */
  strength: number;
  contrast: number;
}

/** Lags up to this share of the shorter side are trusted: beyond it too little overlaps. */
const FARTHEST = 0.62;
const PEAK = 0.08;
const PEAKS = 36;
const STRONG_SHARE = 0.55;
const APART = 0.45;
const NEAR_BEST = 0.8;
/** Cells on each side over which a lattice is judged. */
const RINGS = 8;
/** Accepted in two directions; what is not regular stays below a strength of 0.28. */
const STRONG = 0.33;
const CONTRAST = 0.2;
const CONTRAST_EACH = 0.17;
/** Accepted in one direction, where more agrees by chance. */
const STRONG_ONE_WAY = 0.5;
const CONTRAST_ONE_WAY = 0.3;
const CLAMP = 2.5;

interface Correlation {
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
function* levelled(plane: Float32Array, width: number, height: number): Steps<Float32Array> {
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

/** Autocorrelation by the number of pixels that overlap; picture and mask ride in one transform. */
async function correlate(
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

const valueAt = ({ values, radius }: Correlation, x: number, y: number): number =>
  values[(y + radius) * (2 * radius + 1) + x + radius];

/** Bilinear value; NaN beyond the trusted lags. */
function between(c: Correlation, x: number, y: number): number {
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
function top(before: number, here: number, after: number): number {
  const bow = before - 2 * here + after;
  return bow < -1e-9 ? Math.min(0.5, Math.max(-0.5, (before - after) / (2 * bow))) : 0;
}

interface Peak {
  at: Vector;
  value: number;
}

/** The summit at or beside a whole lag, to a part of a pixel. */
function summit(c: Correlation, x: number, y: number): Peak {
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

const lengthOf = ([x, y]: Vector) => Math.sqrt(x * x + y * y);

/** Strong summits of one half of the plane of lags (the other is its mirror), shortest first. */
function* peaksOf(c: Correlation): Steps<Peak[]> {
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

/** Mean correlation at the combinations of a and b, `shift` off the whole ones, within the trusted lags, and their count. */
function latticeMean(
  c: Correlation,
  a: Vector,
  b: Vector,
  [p, q]: Vector = [0, 0],
): { mean: number; count: number } {
  let sum = 0;
  let count = 0;
  const whole = p === 0 && q === 0;
  for (let j = -RINGS; j <= RINGS; j++) {
    for (let i = -RINGS; i <= RINGS; i++) {
      if (whole && (j < 0 || (j === 0 && i <= 0))) continue;
      const value = between(c, (i + p) * a[0] + (j + q) * b[0], (i + p) * a[1] + (j + q) * b[1]);
      if (Number.isNaN(value)) continue;
      sum += value;
      count++;
    }
  }
  return { mean: count > 0 ? sum / count : 0, count };
}

/** The shortest basis of the same lattice (Lagrange and Gauss). */
function reduced(a: Vector, b: Vector): [Vector, Vector] {
  let [p, q] = [a, b];
  for (let k = 0; k < 32; k++) {
    if (Math.hypot(...q) < Math.hypot(...p)) [p, q] = [q, p];
    const n = Math.round((p[0] * q[0] + p[1] * q[1]) / (p[0] ** 2 + p[1] ** 2));
    if (n === 0) break;
    q = [q[0] - n * p[0], q[1] - n * p[1]];
  }
  return [p, q];
}

/** The basis that fits the summits nearest to its combinations best, over growing rings of cells. */
function refined(c: Correlation, a: Vector, b: Vector): [Vector, Vector] {
  let [p, q] = [a, b];
  for (const rings of [2, 3, 5, 8]) {
    let [ii, ij, jj] = [0, 0, 0];
    const right = [0, 0, 0, 0];
    for (let j = -rings; j <= rings; j++) {
      for (let i = -rings; i <= rings; i++) {
        if (j < 0 || (j === 0 && i <= 0)) continue;
        const x = Math.round(i * p[0] + j * q[0]);
        const y = Math.round(i * p[1] + j * q[1]);
        if (Math.abs(x) > c.radius - 3 || Math.abs(y) > c.radius - 3) continue;
        let best: [number, number, number] = [x, y, valueAt(c, x, y)];
        for (let dy = -2; dy <= 2; dy++) {
          for (let dx = -2; dx <= 2; dx++) {
            const value = valueAt(c, x + dx, y + dy);
            if (value > best[2]) best = [x + dx, y + dy, value];
          }
        }
        const weight = Math.max(0, best[2]);
        if (weight < PEAK) continue;
        const { at } = summit(c, best[0], best[1]);
        ii += weight * i * i;
        ij += weight * i * j;
        jj += weight * j * j;
        right[0] += weight * i * at[0];
        right[1] += weight * i * at[1];
        right[2] += weight * j * at[0];
        right[3] += weight * j * at[1];
      }
    }
    const determinant = ii * jj - ij * ij;
    if (determinant < 1e-9) continue;
    p = [(jj * right[0] - ij * right[2]) / determinant, (jj * right[1] - ij * right[3]) / determinant];
    q = [(ii * right[2] - ij * right[0]) / determinant, (ii * right[3] - ij * right[1]) / determinant];
  }
  return [p, q];
}

/** The direction along which the pattern hardly changes, as a unit vector. */
function alongGrain(c: Correlation): Vector {
  const angles = 720;
  const means = Array.from({ length: angles }, (_, k) => {
    const turn = (k * Math.PI) / angles;
    let sum = 0;
    for (let r = 1; r <= 12; r++) {
      const far = (r * c.radius) / 16;
      sum += between(c, far * Math.cos(turn), far * Math.sin(turn));
    }
    return sum / 12;
  });
  const best = means.reduce((most, value, k) => (value > means[most] ? k : most), 0);
  const shift = top(means[(best + angles - 1) % angles], means[best], means[(best + 1) % angles]);
  const turn = ((best + shift) * Math.PI) / angles;
  return [Math.cos(turn), Math.sin(turn)];
}

/** A pattern that repeats in one direction alone: whole multiples of one vector, at least two of them. */
function oneWay(c: Correlation, peaks: Peak[]): Lattice | null {
  let best: Lattice | null = null;
  for (const { at: a, value } of peaks) {
    if (value < STRONG_ONE_WAY / 2) continue;
    const means = [0, 0];
    let count = 0;
    for (let k = 1; k <= 12; k++) {
      const on = between(c, k * a[0], k * a[1]);
      const off = between(c, (k - 0.5) * a[0], (k - 0.5) * a[1]);
      if (Number.isNaN(on)) break;
      means[0] += on;
      means[1] += off;
      count++;
    }
    if (count < 2) continue;
    const strength = means[0] / count;
    const contrast = strength - means[1] / count;
    if (strength < STRONG_ONE_WAY || contrast < CONTRAST_ONE_WAY) continue;
    // Multiples of the period are as strong: the shortest of those near the best is the period.
    const shorter = best && Math.hypot(...a) < 0.75 * Math.hypot(...best.a);
    if (!best || (shorter ? strength > NEAR_BEST * best.strength : strength * NEAR_BEST > best.strength)) {
      best = { a, b: null, strength, contrast };
    }
  }
  if (!best) return null;
  // Any way along the grain is as good: the period is the part across it.
  const grain = alongGrain(c);
  const along = best.a[0] * grain[0] + best.a[1] * grain[1];
  return { ...best, a: [best.a[0] - along * grain[0], best.a[1] - along * grain[1]] };
}

/**
 * Finds the lattice of a regular pattern in one plane (luminance) by its normalised autocorrelation: pairs
 * of summits scored by the mean at their whole combinations, the smallest cell among nearly the best,
 * refined by least squares over its rings. Null where nothing repeats: it is accepted at a strength above
 * 0.33 and a contrast above 0.2 (what is not regular stays below 0.28). Periods are right to about 0.02 px, on a picture of at least two cells.
 * `checkpoint` is awaited on the way. After Lin, Hays, Wu & Liu 2006 in asking the autocorrelation; the rest is our own.
 */
export async function findLattice(
  plane: Float32Array,
  width: number,
  height: number,
  checkpoint: Checkpoint = async () => {},
): Promise<Lattice | null> {
  await checkpoint(0);
  const even = await runSteps(levelled(plane, width, height), checkpoint);
  await checkpoint(0);
  const c = await correlate(even, width, height, checkpoint);
  await checkpoint(0);
  const peaks = await runSteps(peaksOf(c), checkpoint);
  const pairs: { a: Vector; b: Vector; score: number; area: number }[] = [];
  for (let i = 0; i < peaks.length; i++) {
    await checkpoint(0);
    for (let j = i + 1; j < peaks.length; j++) {
      const a = peaks[i].at;
      const b = peaks[j].at;
      const area = Math.abs(a[0] * b[1] - a[1] * b[0]);
      if (area / (lengthOf(a) * lengthOf(b)) < APART) continue;
      const { mean, count } = latticeMean(c, a, b);
      if (count >= 2) pairs.push({ a, b, score: mean, area });
    }
  }
  const best = Math.max(0, ...pairs.map(({ score }) => score));
  const smallest = pairs
    .filter(({ score }) => score >= NEAR_BEST * best)
    .reduce<(typeof pairs)[0] | null>(
      (least, pair) => (!least || pair.area < least.area ? pair : least),
      null,
    );
  if (smallest) {
    await checkpoint(0);
    const [a, b] = refined(c, ...reduced(smallest.a, smallest.b));
    const on = latticeMean(c, a, b);
    const strength = on.mean;
    const contrast = strength - latticeMean(c, a, b, [0.5, 0.5]).mean;
    // Along boards every lag is as good as any other: that is one direction, not two.
    const each =
      strength - Math.max(latticeMean(c, a, b, [0.5, 0]).mean, latticeMean(c, a, b, [0, 0.5]).mean);
    if (strength > STRONG && contrast > CONTRAST && each > CONTRAST_EACH && on.count >= 2) {
      const [p, q] = reduced(a, b);
      return { a: p, b: q, strength, contrast };
    }
  }
  return oneWay(c, peaks);
}
