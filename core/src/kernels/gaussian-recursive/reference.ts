import type { Band } from '../../raster/band.ts';
import { type Edge, edgeTable } from '../../raster/edges.ts';

/** Poles for σ = 2, fourth order, smallest maximum error (van Vliet, Young & Verbeek 1998, table 2). */
const POLES: [number, number][] = [
  [1.12075, 1.27788],
  [1.76952, 0.46611],
];

/** Coefficients of the recursion, forward and back the same. */
export interface Recursion {
  gain: number;
  feedback: [number, number, number, number];
}

/** What was found for so many widths and lengths is kept: on small planes it would take as long as the blur itself. */
const KEPT = 64;
const RECURSIONS = new Map<string, Recursion>();
const WAYS = new Map<string, Way>();

function remembered<T>(known: Map<string, T>, key: string, make: () => T): T {
  const made = known.get(key) ?? make();
  // The one asked for longest ago goes first.
  known.delete(key);
  known.set(key, made);
  if (known.size > KEPT) known.delete(known.keys().next().value!);
  return made;
}

function varianceOf(q: number): number {
  let sum = 0;
  for (const [re, im] of POLES) {
    const size = Math.hypot(re, im) ** (1 / q);
    const turn = Math.atan2(im, re) / q;
    const dr = size * Math.cos(turn);
    const di = size * Math.sin(turn);
    // 2·Re(2 d / (d − 1)²) for a conjugate pair
    const ar = dr - 1;
    const br = ar * ar - di * di;
    const bi = 2 * ar * di;
    sum += (4 * (dr * br + di * bi)) / (br * br + bi * bi);
  }
  return sum;
}

/**
 * Coefficients of the fourth-order recursion for σ pixels ≥ 2 (van Vliet, Young & Verbeek 1998): the poles are raised to 1/q,
 * with q found so that the variance is σ².
 */
export function recursionFor(sigma: number): Recursion {
  return remembered(RECURSIONS, String(sigma), () => foundRecursion(sigma));
}

function foundRecursion(sigma: number): Recursion {
  let low = 0.1;
  let high = sigma + 1;
  for (let step = 0; step < 80; step++) {
    const q = (low + high) / 2;
    if (varianceOf(q) < sigma * sigma) low = q;
    else high = q;
  }
  const q = (low + high) / 2;
  let polynomial = [1];
  for (const [re, im] of POLES) {
    const size = Math.hypot(re, im) ** (-1 / q);
    const turn = Math.atan2(im, re) / q;
    const factor = [1, -2 * size * Math.cos(turn), size * size];
    const next = new Array(polynomial.length + 2).fill(0);
    polynomial.forEach((a, i) => {
      factor.forEach((b, j) => {
        next[i + j] += a * b;
      });
    });
    polynomial = next;
  }
  const gain = polynomial.reduce((a, b) => a + b, 0);
  const [, a1, a2, a3, a4] = polynomial;
  return { gain, feedback: [-a1, -a2, -a3, -a4] };
}

/** Samples after which the recursion has forgotten where it began, to float precision. */
const forgotten = (sigma: number): number => Math.ceil(11 * sigma);

/** How lines of `length` samples are gone along, so that what lies beyond their ends counts as the edge says. */
export interface Way {
  /** Which samples are taken, in their order; the line's own begin at `before`. */
  samples: Int32Array;
  before: number;
  /** Samples on which a line that goes round is warmed up, round after round; none where it is mirrored on both sides. */
  warmUp: number;
}

/**
 * How lines are gone along for a σ. On an axis that wraps the recursion is warmed up on the line itself, until it has forgotten
 * where it began; on a mirrored one on the mirror image.
 */
export function wayAlong(length: number, edge: Edge, sigma: number): Way {
  return remembered(WAYS, `${length} ${edge} ${sigma}`, () => newWay(length, edge, sigma));
}

function newWay(length: number, edge: Edge, sigma: number): Way {
  const pad = forgotten(sigma);
  if (edge === 'mirror') return { samples: edgeTable(length, pad, pad, edge), before: pad, warmUp: 0 };
  return { samples: edgeTable(length, 0, 0, edge), before: 0, warmUp: pad };
}

/** The recursion over `count` samples of a line from `from` on by `step`, in place unless it only warms up. */
function pass(
  line: Float64Array,
  from: number,
  step: number,
  count: number,
  state: Float64Array,
  { gain, feedback: [b1, b2, b3, b4] }: Recursion,
  keeps: boolean,
): void {
  let [y1, y2, y3, y4] = state;
  for (let k = 0, at = from; k < count; k++, at += step) {
    const v = gain * line[at] + b1 * y1 + b2 * y2 + b3 * y3 + b4 * y4;
    if (keeps) line[at] = v;
    y4 = y3;
    y3 = y2;
    y2 = y1;
    y1 = v;
  }
  state[0] = y1;
  state[1] = y2;
  state[2] = y3;
  state[3] = y4;
}

/** The recursion along a line in one direction, begun so that it has always been going on. */
function along(line: Float64Array, isBack: boolean, { warmUp }: Way, recursion: Recursion): void {
  const n = line.length;
  const [first, step] = isBack ? [n - 1, -1] : [0, 1];
  /** Where the last `count` samples before the line's own begin. */
  const before = (count: number) => (isBack ? count - 1 : n - count);
  // What is left over of whole rounds comes first.
  let count = warmUp % n || Math.min(warmUp, n);
  const state = new Float64Array(4).fill(line[count === 0 ? first : before(count)]);
  for (let left = warmUp; left > 0; left -= count, count = n) {
    pass(line, before(count), step, count, state, recursion, false);
  }
  pass(line, first, step, n, state, recursion, true);
}

/** A line from its samples on their way, through the recursion there and back. */
function thereAndBack(line: Float64Array, way: Way, recursion: Recursion): void {
  along(line, false, way, recursion);
  along(line, true, way, recursion);
}

/** Rows through the recursion, from one plane into the same rows of another, which may be the same plane. */
export function recursiveRows(
  source: Float32Array,
  target: Float32Array,
  width: number,
  way: Way,
  recursion: Recursion,
  { from, to }: Band,
): void {
  const line = new Float64Array(way.samples.length);
  for (let y = from; y < to; y++) {
    const row = y * width;
    for (let k = 0; k < line.length; k++) line[k] = source[row + way.samples[k]];
    thereAndBack(line, way, recursion);
    for (let x = 0; x < width; x++) target[row + x] = line[way.before + x];
  }
}

/** Columns of a plane through the recursion, where they lie. */
export function recursiveColumns(
  plane: Float32Array,
  width: number,
  way: Way,
  recursion: Recursion,
  { from, to }: Band,
): void {
  const height = plane.length / width;
  const line = new Float64Array(way.samples.length);
  for (let x = from; x < to; x++) {
    for (let k = 0; k < line.length; k++) line[k] = plane[way.samples[k] * width + x];
    thereAndBack(line, way, recursion);
    for (let y = 0; y < height; y++) plane[y * width + x] = line[way.before + y];
  }
}

export const reference = { recursiveRows, recursiveColumns };
