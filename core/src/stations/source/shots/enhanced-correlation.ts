import { eliminate } from '../../../algebra/eliminate.ts';
import type { Homography } from './homography.ts';

/** A plane and how it changes to the right and down, per pixel. */
export interface Slopes {
  width: number;
  height: number;
  plane: Float32Array;
  across: Float32Array;
  down: Float32Array;
}

/** Differences over two pixels; at the border over one. */
export function slopesOf(plane: Float32Array, width: number, height: number): Slopes {
  const [across, down] = [new Float32Array(plane.length), new Float32Array(plane.length)];
  for (let y = 0; y < height; y++) {
    const [above, below] = [Math.max(0, y - 1) * width, Math.min(height - 1, y + 1) * width];
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const [left, right] = [Math.max(0, x - 1), Math.min(width - 1, x + 1)];
      across[i] = (plane[y * width + right] - plane[y * width + left]) / 2;
      down[i] = (plane[below + x] - plane[above + x]) / 2;
    }
  }
  return { width, height, plane, across, down };
}

/** Points of a picture from its middle, in shares of its longer edge. */
export interface Points {
  u: Float64Array;
  v: Float64Array;
}

/** Border of a picture that is not looked at, as a share of its shorter side. */
const BORDER = 0.03;

/** About so many points of a picture are looked at. */
const POINTS = 16_000;

/** Points spread evenly over a picture. */
export function pointsOf(width: number, height: number): Points {
  const longer = Math.max(width, height);
  const inner = 1 - (2 * BORDER * Math.min(width, height)) / longer;
  const [w, h] = [(inner * width) / longer, (inner * height) / longer];
  const step = Math.max(1 / longer, Math.sqrt((w * h) / POINTS));
  const [columns, rows] = [Math.floor(w / step), Math.floor(h / step)];
  const [u, v] = [new Float64Array(columns * rows), new Float64Array(columns * rows)];
  for (let i = 0; i < u.length; i++) {
    u[i] = ((i % columns) - (columns - 1) / 2) * step;
    v[i] = (Math.floor(i / columns) - (rows - 1) / 2) * step;
  }
  return { u, v };
}

/** What stands for a point that is not seen. */
export const UNSEEN = -1;

/** What a plane of values from 0 shows at points that a homography moves; `UNSEEN` beyond it. */
export function seenAt(points: Points, { plane, width, height }: Slopes, h: Homography): Float64Array {
  const longer = Math.max(width, height);
  return points.u.map((u, n) => {
    const v = points.v[n];
    const w = longer / (h[6] * u + h[7] * v + 1);
    const x = (h[0] * u + h[1] * v + h[2]) * w + width / 2 - 0.5;
    const y = (h[3] * u + h[4] * v + h[5]) * w + height / 2 - 0.5;
    if (!(x >= 0 && y >= 0 && x < width - 1 && y < height - 1)) return UNSEEN;
    const [i, j] = [Math.floor(x), Math.floor(y)];
    const [s, t] = [x - i, y - j];
    const at = j * width + i;
    const top = plane[at] + s * (plane[at + 1] - plane[at]);
    const low = plane[at + width] + s * (plane[at + width + 1] - plane[at + width]);
    return top + t * (low - top);
  });
}

/** No step larger than this, in shares of the longer edge, is worth another. */
const STILL = 1e-5;
/** Values of a homography. */
export const VALUES = 8;
/** Values of a homography that may change: a shift, an affine change, all. */
export const FREE = { shift: [2, 5], affine: [0, 1, 2, 3, 4, 5], all: [0, 1, 2, 3, 4, 5, 6, 7] };

/** Where a homography fits one picture to another. */
export interface Fit {
  homography: Homography;
  /** Correlation of the two where both are seen, −1…1. */
  correlation: number;
}

/** What a picture shows at points, and how that changes with each of the values of the homography that moves them. */
export interface Changes {
  isSeen: Uint8Array;
  values: Float64Array;
  /** `VALUES` for each point. */
  changes: Float64Array;
}

/** What a picture shows at points that a homography moves. */
export function changesAt(
  points: Points,
  { width, height, plane, across, down }: Slopes,
  h: Homography,
): Changes {
  const { u: us, v: vs } = points;
  const isSeen = new Uint8Array(us.length);
  const values = new Float64Array(us.length);
  const changes = new Float64Array(VALUES * us.length);
  const longer = Math.max(width, height);
  const [h0, h1, h2, h3, h4, h5, h6, h7] = h;
  for (let n = 0, g = 0; n < us.length; n++, g += VALUES) {
    const u = us[n];
    const v = vs[n];
    const w = 1 / (h6 * u + h7 * v + 1);
    const p = (h0 * u + h1 * v + h2) * w;
    const q = (h3 * u + h4 * v + h5) * w;
    const x = p * longer + width / 2 - 0.5;
    const y = q * longer + height / 2 - 0.5;
    if (!(x >= 1 && y >= 1 && x < width - 2 && y < height - 2)) continue;
    const i = Math.floor(x);
    const j = Math.floor(y);
    const s = x - i;
    const t = y - j;
    const at = j * width + i;
    const below = at + width;
    const w00 = (1 - s) * (1 - t);
    const w10 = s * (1 - t);
    const w01 = (1 - s) * t;
    const w11 = s * t;
    const scale = longer * w;
    const gx =
      (w00 * across[at] + w10 * across[at + 1] + w01 * across[below] + w11 * across[below + 1]) * scale;
    const gy = (w00 * down[at] + w10 * down[at + 1] + w01 * down[below] + w11 * down[below + 1]) * scale;
    const back = -(gx * p + gy * q);
    isSeen[n] = 1;
    values[n] = w00 * plane[at] + w10 * plane[at + 1] + w01 * plane[below] + w11 * plane[below + 1];
    changes[g] = gx * u;
    changes[g + 1] = gx * v;
    changes[g + 2] = gx;
    changes[g + 3] = gy * u;
    changes[g + 4] = gy * v;
    changes[g + 5] = gy;
    changes[g + 6] = back * u;
    changes[g + 7] = back * v;
  }
  return { isSeen, values, changes };
}

/** Sums over the points that are seen. */
class Sums {
  count = 0;
  /** Of both pictures, their squares and their product. */
  first = 0;
  second = 0;
  firstSquared = 0;
  secondSquared = 0;
  product = 0;
  /** Of what changes with each value, alone, times the first and times the second picture. */
  readonly change = new Float64Array(VALUES);
  readonly withFirst = new Float64Array(VALUES);
  readonly withSecond = new Float64Array(VALUES);
  /** Of their products with each other, below the diagonal and on it. */
  readonly gram = new Float64Array(VALUES * VALUES);
}

/** Sums up what is expected at points where it is seen, what a picture shows there, and how that changes with the values that are free. */
function summed(expected: Float64Array, { isSeen, values, changes }: Changes, free: readonly number[]): Sums {
  const sums = new Sums();
  const { change, withFirst, withSecond, gram } = sums;
  for (let n = 0, at = 0; n < expected.length; n++, at += VALUES) {
    const one = expected[n];
    if (one === UNSEEN || isSeen[n] === 0) continue;
    const other = values[n];
    sums.count++;
    sums.first += one;
    sums.second += other;
    sums.firstSquared += one * one;
    sums.secondSquared += other * other;
    sums.product += one * other;
    for (const k of free) {
      const value = changes[at + k];
      change[k] += value;
      withFirst[k] += value * one;
      withSecond[k] += value * other;
      for (let m = 0; m <= k; m++) gram[k * VALUES + m] += value * changes[at + m];
    }
  }
  return sums;
}

/**
 * Refines a homography until what a picture shows comes nearest to what is expected at some points (`UNSEEN` where nothing is), whatever its brightness and
 * contrast: enhanced correlation (Evangelidis & Psarakis 2008), forward additive. `free` are the values that may change, `rounds` is the most it
 * may take.
 */
export function enhancedCorrelation(
  points: Points,
  expected: Float64Array,
  slopes: Slopes,
  start: Homography,
  free: readonly number[],
  rounds: number,
): Fit {
  const h = [...start];
  let correlation = 0;
  for (let round = 0; round < rounds; round++) {
    const {
      count,
      first,
      second,
      firstSquared,
      secondSquared,
      product,
      change,
      withFirst,
      withSecond,
      gram,
    } = summed(expected, changesAt(points, slopes, h), free);
    if (count < 10 * VALUES) return { homography: start, correlation: 0 };
    const spreadFirst = firstSquared - (first * first) / count;
    const spreadSecond = secondSquared - (second * second) / count;
    const common = product - (first * second) / count;
    correlation = common / Math.sqrt(spreadFirst * spreadSecond || 1);
    for (let k = 0; k < VALUES; k++) {
      withFirst[k] -= (first / count) * change[k];
      withSecond[k] -= (second / count) * change[k];
    }
    const solvedBy = (right: Float64Array) =>
      eliminate(
        free.map((k) => [
          ...free.map((m) => gram[Math.max(k, m) * VALUES + Math.min(k, m)] * (m === k ? 1 + 1e-9 : 1)),
          right[k],
        ]),
      );
    const [ofFirst, ofSecond] = [solvedBy(withFirst), solvedBy(withSecond)];
    const inner = (values: Float64Array, solved: number[]) =>
      free.reduce((sum, k, m) => sum + values[k] * solved[m], 0);
    const above = spreadSecond - inner(withSecond, ofSecond);
    const under = common - inner(withFirst, ofSecond);
    const lambda = under > 0 ? above / under : Math.max(0.1, Math.sqrt(spreadSecond / (spreadFirst || 1)));
    const step = ofFirst.map((value, k) => lambda * value - ofSecond[k]);
    for (const [m, k] of free.entries()) h[k] += step[m];
    if (Math.max(...step.map(Math.abs)) < STILL) break;
  }
  return { homography: h, correlation };
}
