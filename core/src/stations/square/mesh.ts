import * as v from 'valibot';
import type { Point } from './points.ts';

/** Fewest and most handles of a bend on each axis. */
export const FEWEST_HANDLES = 3;
export const MOST_HANDLES = 6;

const handles = v.pipe(v.number(), v.integer(), v.minValue(FEWEST_HANDLES), v.maxValue(MOST_HANDLES));
const move = v.pipe(v.number(), v.finite(), v.minValue(-1), v.maxValue(1));

/**
 * A smooth bend of the crop: handles on an even grid over it, row by row, and by how much each is moved, in
 * edges of the crop.
 */
export const meshSchema = v.pipe(
  v.strictObject({ across: handles, down: handles, moves: v.array(v.tuple([move, move])) }),
  v.check(({ across, down, moves }) => moves.length === across * down, 'needs one move for each handle'),
);
export type BendMesh = v.InferOutput<typeof meshSchema>;

/** A bend that moves nothing. */
export const flatMesh = (across: number, down: number): BendMesh => ({
  across,
  down,
  moves: Array.from({ length: across * down }, (): Point => [0, 0]),
});

/** Second derivatives at evenly spaced knots of the natural cubic spline that is 1 at knot `k` and 0 at all others. */
function cardinal(n: number, k: number): number[] {
  const h = 1 / (n - 1);
  const value = (i: number) => Number(i === k);
  const curve = new Array<number>(n).fill(0);
  const upper = new Array<number>(n).fill(0);
  // Thomas' algorithm on M(i−1) + 4·M(i) + M(i+1) = 6·Δ²/h².
  for (let i = 1; i < n - 1; i++) {
    const right = (6 * (value(i - 1) - 2 * value(i) + value(i + 1))) / (h * h);
    const pivot = 4 - upper[i - 1];
    upper[i] = 1 / pivot;
    curve[i] = (right - curve[i - 1]) / pivot;
  }
  curve[n - 1] = 0;
  for (let i = n - 2; i > 0; i--) curve[i] -= upper[i] * curve[i + 1];
  return curve;
}

const tables = new Map<number, number[][]>();

/**
 * Weights of `n` evenly spaced knots over 0…1 at `t`, for the interpolating natural cubic spline; beyond the
 * ends it runs on straight.
 */
export function splineWeights(n: number, t: number): number[] {
  let curves = tables.get(n);
  if (!curves) {
    curves = Array.from({ length: n }, (_, k) => cardinal(n, k));
    tables.set(n, curves);
  }
  const h = 1 / (n - 1);
  const i = Math.min(n - 2, Math.max(0, Math.floor(t / h)));
  const b = t / h - i;
  const a = 1 - b;
  return curves.map((curve, k) => {
    const [low, high] = [Number(i === k), Number(i + 1 === k)];
    if (t < 0 || t > 1) {
      const end = t < 0 ? 0 : 1;
      const slope =
        (high - low) / h + ((end === 0 ? -2 : 1) * curve[i] + (end === 0 ? -1 : 2) * curve[i + 1]) * (h / 6);
      return (end === 0 ? low : high) + slope * (t - end);
    }
    return a * low + b * high + (((a ** 3 - a) * curve[i] + (b ** 3 - b) * curve[i + 1]) * h * h) / 6;
  });
}

/** By how much a bend moves a place of the crop, for places in the same row `v`. */
export function meshRow({ across, down, moves }: BendMesh, v: number): (weights: number[]) => Point {
  const rows = splineWeights(down, v);
  const x = new Array<number>(across).fill(0);
  const y = new Array<number>(across).fill(0);
  for (let j = 0; j < down; j++) {
    for (let i = 0; i < across; i++) {
      const [dx, dy] = moves[j * across + i];
      x[i] += rows[j] * dx;
      y[i] += rows[j] * dy;
    }
  }
  return (weights) => {
    let dx = 0;
    let dy = 0;
    for (let i = 0; i < across; i++) {
      dx += weights[i] * x[i];
      dy += weights[i] * y[i];
    }
    return [dx, dy];
  };
}

/** By how much a bend moves the place (`u`, `v`) of the crop. */
export const meshMove = (mesh: BendMesh, u: number, v: number): Point =>
  meshRow(mesh, v)(splineWeights(mesh.across, u));

/** The same bend with other handles: as near as these can come to it. */
export function meshWith(mesh: BendMesh, across: number, down: number): BendMesh {
  const { moves } = flatMesh(across, down);
  return {
    across,
    down,
    moves: moves.map((_, k) =>
      meshMove(mesh, (k % across) / (across - 1), Math.floor(k / across) / (down - 1)),
    ),
  };
}

const CHECKED = 32;
const STEP = 1e-3;
const LEAST = 0.05;

/** Whether a bend lays the crop over itself anywhere. */
export function isFolded(mesh: BendMesh): boolean {
  const at = (u: number, v: number): Point => {
    const [dx, dy] = meshMove(mesh, u, v);
    return [u + dx, v + dy];
  };
  for (let j = 0; j <= CHECKED; j++) {
    for (let i = 0; i <= CHECKED; i++) {
      const [u, v] = [i / CHECKED, j / CHECKED];
      const [x, y] = at(u, v);
      const [rightX, rightY] = at(u + STEP, v);
      const [downX, downY] = at(u, v + STEP);
      const area = (rightX - x) * (downY - y) - (rightY - y) * (downX - x);
      if (area < LEAST * STEP * STEP) return true;
    }
  }
  return false;
}
