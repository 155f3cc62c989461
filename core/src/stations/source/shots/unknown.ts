import { symmetricEigen } from '../../../algebra/symmetric.ts';
import { cross, dot, lengthOf, scaled, type Vector3 } from '../../../algebra/vectors.ts';
import { median, percentiles } from '../../../statistics/statistics.ts';
import { directionOf, type LightVector } from './light.ts';
import { type Stack, samplesOf } from './sampled.ts';

/** Rounds in which pixels that three lights do not explain are left out. */
const ROUNDS = 4;
/** Share of the pixels that is kept in each. */
const KEPT = 80;
/** Depths that are tried: their logarithm from, to, and in so many steps. */
const DEPTH = { from: Math.log(0.15), to: Math.log(6), steps: 120 };
/** Bins of the logarithm of albedo, and how wide one is. */
const BIN = 0.04;
/** How much lamps of one strength count against albedo of few values. */
const EQUAL = 0.2;
/** Lamps stand about so high, give or take, in degrees, where nothing else tells. */
const USUAL = { height: 45, spread: 15 };
/** A slope as surfaces have it, from which depths are tried. */
const USUAL_SLOPE = 0.25;
/** How much the usual height counts. */
const USUAL_WEIGHT = 0.03;

/** What unknown lights were found to be. */
export interface Factorised {
  lights: LightVector[];
  /** What three lights leave unexplained: the fourth eigenvalue over the third, by their roots. */
  beyond: number;
}

type Matrix3 = [Vector3, Vector3, Vector3];

const times = (m: Matrix3, v: Vector3): Vector3 => [dot(m[0], v), dot(m[1], v), dot(m[2], v)];

/** The three strongest directions in which the shots change, from pixels that fit them. */
function strongest(values: Float64Array, shots: number, count: number) {
  let kept = Array.from({ length: count }, (_, n) => n);
  let eigen = { values: [] as number[], vectors: [] as number[][] };
  let limit = 1;
  for (let round = 0; round < ROUNDS; round++) {
    const gram = Array.from({ length: shots }, () => new Array<number>(shots).fill(0));
    for (const n of kept) {
      // Each pixel counts alike, whatever its albedo.
      let square = 0;
      for (let k = 0; k < shots; k++) square += values[n * shots + k] ** 2;
      for (let i = 0; i < shots; i++)
        for (let j = 0; j < shots; j++)
          gram[i][j] += (values[n * shots + i] * values[n * shots + j]) / square;
    }
    eigen = symmetricEigen(gram);
    const misses = Float64Array.from({ length: count }, (_, n) => {
      const pixel = values.subarray(n * shots, (n + 1) * shots);
      let [square, inside] = [0, 0];
      for (const value of pixel) square += value * value;
      for (let e = 0; e < 3; e++) {
        let sum = 0;
        for (let k = 0; k < shots; k++) sum += eigen.vectors[e][k] * pixel[k];
        inside += sum * sum;
      }
      return Math.max(0, square - inside) / square;
    });
    [limit] = percentiles(misses, [KEPT]);
    kept = Array.from({ length: count }, (_, n) => n).filter((n) => misses[n] <= limit);
  }
  return { basis: eigen.vectors.slice(0, 3), values: eigen.values, limit };
}

/** The vector for which one symmetric form is least beside another. */
function leastBeside(form: number[][], other: number[][]): number[] {
  const { values, vectors } = symmetricEigen(other);
  const floor = 1e-9 * values[0];
  const whitened = vectors.map((vector, k) =>
    vector.map((value) => value / Math.sqrt(Math.max(floor, values[k]))),
  );
  const inside = whitened.map((a) =>
    whitened.map((b) =>
      a.reduce((sum, value, i) => sum + value * form[i].reduce((all, one, j) => all + one * b[j], 0), 0),
    ),
  );
  const least = symmetricEigen(inside).vectors.at(-1)!;
  return form.map((_, i) => least.reduce((sum, value, k) => sum + value * whitened[k][i], 0));
}

/**
 * Brings what was factorised to surfaces that can be integrated (Yuille & Snow 1997), but for a stretch of depth and a slope of the
 * whole: the rows of the matrix.
 */
function integrable({ planes, width, height }: Stack, basis: number[][], limit: number): Matrix3 {
  const shots = planes.length;
  const at = (i: number): Vector3 | null => {
    const s: Vector3 = [0, 0, 0];
    let square = 0;
    for (let k = 0; k < shots; k++) {
      const value = planes[k][i];
      if (value < 0) return null;
      square += value * value;
      for (let e = 0; e < 3; e++) s[e] += basis[e][k] * value;
    }
    return square - dot(s, s) > limit * square ? null : s;
  };
  const noise = Array.from({ length: 6 }, () => new Array<number>(6).fill(0));
  const gram = Array.from({ length: 6 }, () => new Array<number>(6).fill(0));
  for (let y = 1; y + 1 < height; y++) {
    for (let x = 1; x + 1 < width; x++) {
      const i = y * width + x;
      const [s, left, right, above, below] = [i, i - 1, i + 1, i - width, i + width].map(at);
      if (!s || !left || !right || !above || !below) continue;
      const dx: Vector3 = [0, 1, 2].map((e) => (right[e] - left[e]) / 2) as Vector3;
      const dy: Vector3 = [0, 1, 2].map((e) => (above[e] - below[e]) / 2) as Vector3;
      const square = dot(s, s);
      // Albedo that changes says nothing of slope, only noise: it counts less.
      const ax = dot(s, dx) / square;
      const ay = dot(s, dy) / square;
      const weight = 1 / (square * square * (1 + (ax * ax + ay * ay) / 0.01));
      const [alongY, alongX] = [cross(s, dy), cross(s, dx)];
      const row = [...alongY, ...scaled(alongX, -1)];
      for (let p = 0; p < 6; p++) for (let q = 0; q < 6; q++) gram[p][q] += weight * row[p] * row[q];
      // Noise of the differences, seen through the products with the value itself.
      for (let p = 0; p < 3; p++) {
        for (let q = 0; q < 3; q++) {
          const spread = weight * ((p === q ? square : 0) - s[p] * s[q]);
          noise[p][q] += spread;
          noise[3 + p][3 + q] += spread;
        }
      }
    }
  }
  const least = leastBeside(gram, noise);
  const [first, second] = [least.slice(0, 3), least.slice(3)] as Vector3[];
  const up = cross(first, second);
  const scale = 1 / lengthOf(up);
  const third = scaled(up, scale);
  return [cross(third, first), cross(third, second), third];
}

/** The entropy of a histogram of values. */
function entropyOf(values: Float64Array): number {
  const counts = new Map<number, number>();
  for (const value of values) {
    const bin = Math.round(value / BIN);
    counts.set(bin, (counts.get(bin) ?? 0) + 1);
  }
  let sum = 0;
  for (const count of counts.values()) sum -= (count / values.length) * Math.log(count / values.length);
  return sum;
}

const spreadOf = (values: number[]): number => {
  const mean = values.reduce((a, b) => a + b, 0) / values.length;
  return Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / values.length);
};

/**
 * Lights that are not known, from six shots and more (four at the least): factorisation (Hayakawa 1994) and integrability (Yuille & Snow 1997). What is left
 * open is what is true of a tile: it is level on the whole, its albedo has few values (Alldrin, Mallick & Kriegman 2007) and the lamps are about as
 * strong as each other. Whether it is raised or recessed stays open.
 */
export function unknownLights(stack: Stack): Factorised {
  const { shots, values, count } = samplesOf(stack, true);
  const { basis, values: eigenvalues, limit } = strongest(values, shots, count);
  const matrix = integrable(stack, basis, limit);
  // In each pixel's own coordinates.
  const pixels = Array.from({ length: count }, (_, n): Vector3 => {
    const s = [0, 1, 2].map((e) => {
      let sum = 0;
      for (let k = 0; k < shots; k++) sum += basis[e][k] * values[n * shots + k];
      return sum;
    }) as Vector3;
    return times(matrix, s);
  });
  if (median(pixels.map((b) => b[2])) < 0) {
    for (const b of pixels) for (let c = 0; c < 3; c++) b[c] = -b[c];
    for (const row of matrix) for (let c = 0; c < 3; c++) row[c] = -row[c];
  }
  // Level on the whole.
  for (const axis of [0, 1] as const) {
    const slope = median(pixels.map((b) => b[axis] / b[2]));
    for (const b of pixels) b[axis] -= slope * b[2];
    matrix[axis] = [0, 1, 2].map((c) => matrix[axis][c] - slope * matrix[2][c]) as Vector3;
  }
  const lightsAt = (depth: number): LightVector[] => {
    // values = L b: rows of L from the inverse of the matrix, since values = Σ s_e basis_e.
    const m: Matrix3 = [scaled(matrix[0], depth), scaled(matrix[1], depth), matrix[2]];
    const [a, b, c] = [cross(m[1], m[2]), cross(m[2], m[0]), cross(m[0], m[1])];
    const determinant = dot(m[0], a);
    return Array.from({ length: shots }, (_, k) => {
      const row: Vector3 = [basis[0][k], basis[1][k], basis[2][k]];
      return [dot(row, a) / determinant, dot(row, b) / determinant, dot(row, c) / determinant];
    });
  };
  let best = { cost: Number.POSITIVE_INFINITY, depth: 1 };
  // Depths are tried about that at which half of the slopes are steeper than `USUAL_SLOPE`.
  const usual = 1 / (median(pixels.map((b) => Math.hypot(b[0], b[1]) / b[2])) || 1);
  for (let step = 0; step <= DEPTH.steps; step++) {
    const depth = USUAL_SLOPE * usual * Math.exp(DEPTH.from + ((DEPTH.to - DEPTH.from) * step) / DEPTH.steps);
    const albedo = Float64Array.from(pixels, (b) => Math.log(Math.hypot(depth * b[0], depth * b[1], b[2])));
    const lights = lightsAt(depth);
    const strengths = lights.map((light) => Math.log(lengthOf(light)));
    const heights = lights.map((light) => directionOf(light).height);
    const unusual = (median(heights) - USUAL.height) / USUAL.spread;
    const cost = entropyOf(albedo) + EQUAL * spreadOf(strengths) + USUAL_WEIGHT * unusual * unusual;
    if (cost < best.cost) best = { cost, depth };
  }
  const lights = lightsAt(best.depth);
  const first = lengthOf(lights[0]);
  return {
    lights: lights.map((light) => scaled(light, 1 / first)),
    beyond: Math.sqrt(Math.max(0, eigenvalues[3] ?? 0) / eigenvalues[2]),
  };
}
