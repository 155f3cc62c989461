import {
  PRINT_COLUMNS,
  PRINT_LEVELS,
  PRINT_ROWS,
  type Prints,
  samplesOf,
} from '../../kernels/paint-strokes/reference.ts';
import { drawnShare } from '../../lattice/draw.ts';
import { smoothStep } from '../../sampling/smooth-step.ts';

/** Prints that strokes choose from. */
export const PRINT_COUNT = 6;

/** Noise 0..1 between values drawn at whole places. */
function tracks(x: number, y: number, seed: number): number {
  const [i, j] = [Math.floor(x), Math.floor(y)];
  const [u, v] = [smoothStep(0, 1, x - i), smoothStep(0, 1, y - j)];
  const at = (p: number, q: number) => drawnShare(p * 4099 + q, seed);
  const low = at(i, j) + u * (at(i + 1, j) - at(i, j));
  const high = at(i, j + 1) + u * (at(i + 1, j + 1) - at(i, j + 1));
  return low + v * (high - low);
}

const bell = (value: number, middle: number, width: number) => Math.exp(-(((value - middle) / width) ** 2));

/**
 * Cover and ridge of a flat brush at a place along its stroke and across it, both 0..1: bristles leave tracks, the start is
 * ragged, paint runs out towards the end, and is pushed to a rim at the sides.
 */
function printed(u: number, v: number, seed: number): [number, number] {
  const inward = 1 - Math.abs(2 * v - 1);
  const bristles =
    0.55 * tracks(3 * u, 11 * v, seed + 1) +
    0.3 * tracks(6 * u, 23 * v, seed + 2) +
    0.15 * tracks(14 * u, 40 * v, seed + 3);
  const lifted = 0.6 * tracks(0, 9 * v, seed + 4) + 0.4 * tracks(0, 27 * v, seed + 5);
  const start = smoothStep(0, 0.035, u - 0.03 * tracks(0, 13 * v, seed + 6));
  const end = 1 - smoothStep(0, 0.1, u - (0.72 + 0.26 * lifted));
  const full = smoothStep(-0.06, 0.1, bristles - (0.05 + 0.42 * smoothStep(0.45, 1.05, u)));
  const side = smoothStep(0, 0.1, inward - 0.1 * tracks(7 * u, v > 0.5 ? 1 : 0, seed + 7));
  const rim = 0.55 * bell(inward, 0.14, 0.09) + 0.35 * bell(u, 0.05, 0.03);
  return [start * end * side * full, Math.min(1, 0.25 + 0.6 * bristles + rim * (1 - 0.5 * u))];
}

/** The prints that were made last: a dial is moved many times by one seed. */
let kept: { seed: number; prints: Prints } | null = null;

/** Brush prints; the ridges of each are about 0, so that they have no level of their own. */
export function brushPrints(seed: number): Prints {
  if (kept?.seed !== seed) kept = { seed, prints: newPrints(seed) };
  return kept.prints;
}

function newPrints(seed: number): Prints {
  const levels: Float32Array[] = [];
  const finest = new Float32Array(2 * PRINT_COUNT * samplesOf(0));
  for (let print = 0; print < PRINT_COUNT; print++) {
    const own = seed * 7919 + print * 101;
    const from = print * samplesOf(0);
    let [sum, weight] = [0, 0];
    for (let k = 0; k < samplesOf(0); k++) {
      const u = ((k % PRINT_COLUMNS) + 0.5) / PRINT_COLUMNS;
      const v = (Math.floor(k / PRINT_COLUMNS) + 0.5) / PRINT_ROWS;
      const [cover, ridge] = printed(u, v, own);
      finest.set([cover, ridge], 2 * (from + k));
      sum += cover * ridge;
      weight += cover;
    }
    for (let k = 0; k < samplesOf(0); k++) finest[2 * (from + k) + 1] -= sum / weight;
  }
  levels.push(finest);
  for (let level = 1; level < PRINT_LEVELS; level++) levels.push(halved(levels[level - 1], level));
  const values = new Float32Array(levels.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const one of levels) {
    values.set(one, at);
    at += one.length;
  }
  return { values, count: PRINT_COUNT };
}

/** Prints of a level from those of the finer one: the mean of four samples. */
function halved(finer: Float32Array, level: number): Float32Array {
  const [columns, rows] = [PRINT_COLUMNS >> level, PRINT_ROWS >> level];
  const out = new Float32Array(2 * PRINT_COUNT * samplesOf(level));
  for (let print = 0; print < PRINT_COUNT; print++) {
    for (let y = 0; y < rows; y++) {
      for (let x = 0; x < columns; x++) {
        const from = 2 * (print * samplesOf(level - 1) + 2 * y * 2 * columns + 2 * x);
        const to = 2 * (print * samplesOf(level) + y * columns + x);
        for (let c = 0; c < 2; c++) {
          const top = finer[from + c] + finer[from + 2 + c];
          out[to + c] = (top + finer[from + 4 * columns + c] + finer[from + 4 * columns + 2 + c]) / 4;
        }
      }
    }
  }
  return out;
}
