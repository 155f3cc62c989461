import type { Checkpoint } from '../../work/checkpoint.ts';
import { runSteps } from '../../work/steps.ts';
import {
  between,
  type Correlation,
  correlate,
  lengthOf,
  levelled,
  PEAK,
  type Peak,
  peaksOf,
  summit,
  top,
  valueAt,
} from './correlation.ts';
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

/** The whole lag of the highest value within two of (x, y), and that value. */
function highestNear(c: Correlation, x: number, y: number): [x: number, y: number, value: number] {
  let best: [number, number, number] = [x, y, valueAt(c, x, y)];
  for (let dy = -2; dy <= 2; dy++) {
    for (let dx = -2; dx <= 2; dx++) {
      const value = valueAt(c, x + dx, y + dy);
      if (value > best[2]) best = [x + dx, y + dy, value];
    }
  }
  return best;
}

/** The basis that fits the summits nearest to its combinations best, over so many rings of cells; null where too few are found. */
function fitted(c: Correlation, p: Vector, q: Vector, rings: number): [Vector, Vector] | null {
  let [ii, ij, jj] = [0, 0, 0];
  const right = [0, 0, 0, 0];
  for (let j = 0; j <= rings; j++) {
    for (let i = j === 0 ? 1 : -rings; i <= rings; i++) {
      const x = Math.round(i * p[0] + j * q[0]);
      const y = Math.round(i * p[1] + j * q[1]);
      if (Math.abs(x) > c.radius - 3 || Math.abs(y) > c.radius - 3) continue;
      const best = highestNear(c, x, y);
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
  if (determinant < 1e-9) return null;
  return [
    [(jj * right[0] - ij * right[2]) / determinant, (jj * right[1] - ij * right[3]) / determinant],
    [(ii * right[2] - ij * right[0]) / determinant, (ii * right[3] - ij * right[1]) / determinant],
  ];
}

/** A basis fitted over growing rings of cells. */
function refined(c: Correlation, a: Vector, b: Vector): [Vector, Vector] {
  let basis: [Vector, Vector] = [a, b];
  for (const rings of [2, 3, 5, 8]) basis = fitted(c, ...basis, rings) ?? basis;
  return basis;
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
