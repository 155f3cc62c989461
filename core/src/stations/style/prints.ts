import {
  PRINT_COLUMNS,
  PRINT_LEVELS,
  PRINT_ROWS,
  type Prints,
  samplesOf,
} from '../../kernels/paint-strokes/reference.ts';
import { drawnShare } from '../../lattice/draw.ts';
import { smoothStep } from '../../lattice/smooth-step.ts';

/** Prints that strokes choose from. */
export const PRINT_COUNT = 6;

/** Noise 0..1 between values drawn at whole places, as a function of a place from 0, 0 to what is named. */
function tracksFor(mostX: number, mostY: number, seed: number): (x: number, y: number) => number {
  const rows = mostY + 2;
  const values = new Float64Array((mostX + 2) * rows);
  for (let k = 0; k < values.length; k++) {
    values[k] = drawnShare(Math.floor(k / rows) * 4099 + (k % rows), seed);
  }
  return (x, y) => {
    const i = Math.floor(x);
    const j = Math.floor(y);
    const u = smoothStep(0, 1, x - i);
    const v = smoothStep(0, 1, y - j);
    const at = i * rows + j;
    const low = values[at] + u * (values[at + rows] - values[at]);
    const high = values[at + 1] + u * (values[at + rows + 1] - values[at + 1]);
    return low + v * (high - low);
  };
}

const bell = (value: number, middle: number, width: number) => Math.exp(-(((value - middle) / width) ** 2));

/**
 * Cover and ridge of a flat brush at a place along its stroke and across it, both 0..1: bristles leave tracks, the start is
 * ragged, paint runs out towards the end, and is pushed to a rim at the sides.
 */
function printFor(seed: number): (u: number, v: number) => [number, number] {
  const broad = tracksFor(3, 11, seed + 1);
  const middle = tracksFor(6, 23, seed + 2);
  const fine = tracksFor(14, 40, seed + 3);
  const lift = [tracksFor(0, 9, seed + 4), tracksFor(0, 27, seed + 5)];
  const begun = tracksFor(0, 13, seed + 6);
  const atSide = tracksFor(7, 1, seed + 7);
  return (u, v) => {
    const inward = 1 - Math.abs(2 * v - 1);
    const bristles = 0.55 * broad(3 * u, 11 * v) + 0.3 * middle(6 * u, 23 * v) + 0.15 * fine(14 * u, 40 * v);
    const lifted = 0.6 * lift[0](0, 9 * v) + 0.4 * lift[1](0, 27 * v);
    const start = smoothStep(0, 0.035, u - 0.03 * begun(0, 13 * v));
    const end = 1 - smoothStep(0, 0.1, u - (0.72 + 0.26 * lifted));
    const full = smoothStep(-0.06, 0.1, bristles - (0.05 + 0.42 * smoothStep(0.45, 1.05, u)));
    const side = smoothStep(0, 0.1, inward - 0.1 * atSide(7 * u, v > 0.5 ? 1 : 0));
    const rim = 0.55 * bell(inward, 0.14, 0.09) + 0.35 * bell(u, 0.05, 0.03);
    return [start * end * side * full, Math.min(1, 0.25 + 0.6 * bristles + rim * (1 - 0.5 * u))];
  };
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
    const printed = printFor(seed * 7919 + print * 101);
    const from = print * samplesOf(0);
    let [sum, weight] = [0, 0];
    for (let k = 0; k < samplesOf(0); k++) {
      const u = ((k % PRINT_COLUMNS) + 0.5) / PRINT_COLUMNS;
      const v = (Math.floor(k / PRINT_COLUMNS) + 0.5) / PRINT_ROWS;
      const [cover, ridge] = printed(u, v);
      finest[2 * (from + k)] = cover;
      finest[2 * (from + k) + 1] = ridge;
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
