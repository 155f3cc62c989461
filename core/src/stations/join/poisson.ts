import { type Edges, edgeIndex } from '../../raster/edges.ts';
import { mean } from '../../statistics/statistics.ts';
import { runSteps, type Steps } from '../../work/steps.ts';

/** Sweeps before and after each visit of a coarser grid. */
const SWEEPS = 2;
const CYCLES = 10;
const ENOUGH = 4e-4;
const COARSEST = 4;

interface Level {
  width: number;
  height: number;
  value: Float32Array;
  right: Float32Array;
  rest: Float32Array;
  /** Neighbours to the left and right of each column. */
  before: Int32Array;
  after: Int32Array;
}

function levelsOf(width: number, height: number, edges: Edges): Level[] {
  const levels: Level[] = [];
  let [w, h] = [width, height];
  for (;;) {
    const n = w * h;
    levels.push({
      width: w,
      height: h,
      value: new Float32Array(n),
      right: new Float32Array(n),
      rest: new Float32Array(n),
      before: indexTable(w, -1, edges.x),
      after: indexTable(w, 1, edges.x),
    });
    if (Math.min(w, h) <= COARSEST) return levels;
    w = (w + 1) >> 1;
    h = (h + 1) >> 1;
  }
}

const indexTable = (n: number, step: number, edge: Edges['x']) =>
  Int32Array.from({ length: n }, (_, i) => edgeIndex(i + step, n, edge));

/** One Gauss–Seidel sweep over the pixels of one colour of the chequerboard, or the residual of all. */
function sweep(level: Level, edges: Edges, colour: 0 | 1): void {
  const { width, height, value, right, before, after } = level;
  for (let y = 0; y < height; y++) {
    const row = y * width;
    const up = edgeIndex(y - 1, height, edges.y) * width;
    const down = edgeIndex(y + 1, height, edges.y) * width;
    for (let x = (y + colour) & 1; x < width; x += 2) {
      value[row + x] =
        0.25 *
        (value[row + before[x]] + value[row + after[x]] + value[up + x] + value[down + x] - right[row + x]);
    }
  }
}

function residual(level: Level, edges: Edges): void {
  const { width, height, value, right, rest, before, after } = level;
  for (let y = 0; y < height; y++) {
    const row = y * width;
    const up = edgeIndex(y - 1, height, edges.y) * width;
    const down = edgeIndex(y + 1, height, edges.y) * width;
    for (let x = 0; x < width; x++) {
      const i = row + x;
      rest[i] =
        right[i] +
        4 * value[i] -
        value[row + before[x]] -
        value[row + after[x]] -
        value[up + x] -
        value[down + x];
    }
  }
}

/** The coarse right side: the sum of each 2 × 2 block, which is its mean times the square of the step. */
function restrict(fine: Level, coarse: Level): void {
  coarse.right.fill(0);
  coarse.value.fill(0);
  for (let y = 0; y < fine.height; y++) {
    const row = (y >> 1) * coarse.width;
    for (let x = 0; x < fine.width; x++) coarse.right[row + (x >> 1)] += fine.rest[y * fine.width + x];
  }
}

/** Adds the coarse correction, brought up bilinearly. */
function prolong(coarse: Level, fine: Level, edges: Edges): void {
  for (let y = 0; y < fine.height; y++) {
    const near = (y >> 1) * coarse.width;
    const far = edgeIndex((y >> 1) + (y & 1 ? 1 : -1), coarse.height, edges.y) * coarse.width;
    for (let x = 0; x < fine.width; x++) {
      const p = x >> 1;
      const q = edgeIndex(p + (x & 1 ? 1 : -1), coarse.width, edges.x);
      fine.value[y * fine.width + x] +=
        0.5625 * coarse.value[near + p] +
        0.1875 * (coarse.value[near + q] + coarse.value[far + p]) +
        0.0625 * coarse.value[far + q];
    }
  }
}

function* cycle(levels: Level[], k: number, edges: Edges): Steps<void> {
  const level = levels[k];
  const coarsest = k === levels.length - 1;
  for (let n = 0; n < (coarsest ? 60 : SWEEPS); n++) {
    sweep(level, edges, 0);
    yield;
    sweep(level, edges, 1);
    yield;
  }
  if (coarsest) return;
  residual(level, edges);
  yield;
  restrict(level, levels[k + 1]);
  yield;
  yield* cycle(levels, k + 1, edges);
  prolong(levels[k + 1], level, edges);
  for (let n = 0; n < SWEEPS; n++) {
    yield;
    sweep(level, edges, 1);
    yield;
    sweep(level, edges, 0);
  }
}

function size(plane: Float32Array): number {
  let sum = 0;
  for (let i = 0; i < plane.length; i++) sum += plane[i] * plane[i];
  return Math.sqrt(sum);
}

/** A plane less its mean, into another or itself. */
function aboutMean(plane: Float32Array, out: Float32Array): Float32Array {
  const middle = mean(plane);
  for (let i = 0; i < plane.length; i++) out[i] = plane[i] - middle;
  return out;
}

/**
 * Solves Δs = `right` on a plane whose edges wrap or mirror (then nothing flows over them), with the
 * five-point Laplacian of step 1 and the mean of s at 0, by multigrid (Brandt 1977): red–black
 * Gauss–Seidel, V-cycles until the residual is four ten-thousandths of the right side. The mean of `right`, for which
 * there is no answer, is left out. `checkpoint` is awaited between cycles.
 */
export async function solvePoisson(
  right: Float32Array,
  width: number,
  height: number,
  edges: Edges,
  checkpoint: (done: number) => Promise<void>,
): Promise<Float32Array> {
  const levels = levelsOf(width, height, edges);
  const [finest] = levels;
  aboutMean(right, finest.right);
  await checkpoint(0);
  const whole = size(finest.right);
  for (let n = 0; n < CYCLES && whole > 0; n++) {
    await checkpoint(n / CYCLES);
    await runSteps(cycle(levels, 0, edges), checkpoint);
    await checkpoint(n / CYCLES);
    residual(finest, edges);
    if (size(finest.rest) < ENOUGH * whole) break;
  }
  return aboutMean(finest.value, finest.value);
}
