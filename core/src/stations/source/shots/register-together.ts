import { eliminate } from '../../../algebra/eliminate.ts';
import { symmetricEigen } from '../../../algebra/symmetric.ts';
import { gaussian } from '../../../filters/gaussian.ts';
import { MIRROR } from '../../../raster/edges.ts';
import { percentiles } from '../../../statistics/statistics.ts';
import type { Steps } from '../../../work/steps.ts';
import {
  type Changes,
  changesAt,
  type Points,
  type Slopes,
  seenAt,
  slopesOf,
  VALUES,
} from './enhanced-correlation.ts';
import { farthestMove, followed, type Homography, inverted, UNMOVED } from './homography.ts';

/** What is broad beside the details by which shots are aligned, in pixels. */
const BROAD = 6;
/** What is darker than this share of its surroundings may lie in shadow, and so may what is this near to it, in pixels. */
const SHADED = 0.15;
const NEAR = 2;
/** A matte surface in any light is a sum of so many pictures of it. */
const LIGHTS = 3;
/** One in so many points is enough for shots that are refined together. */
const EVERY = 2;
const ROUNDS = 16;
/** After the first rounds, one that leaves more than this share of what was apart before is the last. */
const FIRST = 3;
const WORTH = 0.998;
/** No corner that moves by less than this, in pixels, is worth another round. */
const SETTLED = 0.004;
/** Nor is one right that moves farther than this, in pixels. */
const ASTRAY = 4;
/** Percentile of the misfits that is usual; points that fit less well than twice that count little. */
const USUAL = 70;
/** So often the sums are fitted; from the second time on points that did not fit before count little. */
const PASSES = 2;
/** Shots have moved where less than this of what is apart is left. */
const BETTER = 0.85;
/** Points for each value that is sought. */
const ENOUGH = 20;

const sum = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0);

/** The lowest of what lies around each pixel. */
function lowestAround({ plane, width, height }: Slopes): Float32Array {
  const across = plane.map((low, i) => {
    const x = i % width;
    for (let d = -Math.min(NEAR, x); d <= Math.min(NEAR, width - 1 - x); d++)
      low = Math.min(low, plane[i + d]);
    return low;
  });
  return across.map((low, i) => {
    const y = Math.floor(i / width);
    for (let d = -Math.min(NEAR, y); d <= Math.min(NEAR, height - 1 - y); d++)
      low = Math.min(low, across[i + d * width]);
    return low;
  });
}

/** Points that no shot shows in shadow. */
function litPoints(shots: readonly Slopes[], points: Points, homographies: readonly Homography[]): Points {
  const low = shots.map((shot, k) => seenAt(points, { ...shot, plane: lowestAround(shot) }, homographies[k]));
  const isLit = (_: number, n: number) => n % EVERY === 0 && low.every((values) => values[n] > SHADED);
  return { u: points.u.filter(isLit), v: points.v.filter(isLit) };
}

/** What is no sum of pictures. */
interface Apart {
  /** How much of each shot's details it is, from the details of all. */
  shares: number[][];
  /** How much each point counts. */
  weights: Float64Array;
  /** Its part of the energy of all details, 0…1. */
  part: number;
}

/** Separates what is a sum of pictures from what is not. */
function whatIsApart(seen: readonly Changes[]): Apart {
  const isSeen = seen[0].isSeen.map((_, n) => (seen.every((one) => one.isSeen[n]) ? 1 : 0));
  const weights = Float64Array.from(isSeen);
  let shares: number[][] = [];
  let part = 0;
  for (let pass = 0; pass < PASSES; pass++) {
    const gram = seen.map(({ values }) =>
      seen.map((other) => {
        let product = 0;
        for (let n = 0; n < weights.length; n++) product += weights[n] * values[n] * other.values[n];
        return product;
      }),
    );
    const eigen = symmetricEigen(gram);
    part = sum(eigen.values.slice(LIGHTS)) / (sum(eigen.values) || 1);
    const least = eigen.vectors.slice(LIGHTS);
    shares = seen.map((_, k) => seen.map((__, l) => sum(least.map((v) => v[k] * v[l]))));
    const misses = weights.map((_, n) => {
      let square = 0;
      for (const v of least) {
        let miss = 0;
        for (let k = 0; k < seen.length; k++) miss += v[k] * seen[k].values[n];
        square += miss * miss;
      }
      return Math.sqrt(square);
    });
    const [usual] = percentiles(
      misses.filter((_, n) => isSeen[n]),
      [USUAL],
    );
    for (let n = 0; n < weights.length; n++)
      weights[n] = isSeen[n] / (1 + (misses[n] / (2 * usual || 1)) ** 2) ** 2;
  }
  return { shares, weights, part };
}

/** Sums of the products of what changes in one shot with what changes in another, by rows. */
function products(one: Float64Array, other: Float64Array, weights: Float64Array): Float64Array {
  const sums = new Float64Array(VALUES * VALUES);
  for (let n = 0, at = 0; n < weights.length; n++, at += VALUES) {
    if (weights[n] === 0) continue;
    for (let i = 0; i < VALUES; i++) {
      const value = weights[n] * one[at + i];
      for (let j = 0; j < VALUES; j++) sums[i * VALUES + j] += value * other[at + j];
    }
  }
  return sums;
}

/** By how much each value of every homography but the first is to change. */
function stepOf(seen: readonly Changes[], { shares, weights }: Apart): number[] {
  const free = VALUES * (seen.length - 1);
  const rows = Array.from({ length: free }, () => new Array<number>(free + 1).fill(0));
  for (let k = 1; k < seen.length; k++) {
    const { changes } = seen[k];
    const top = VALUES * (k - 1);
    for (let l = 1; l <= k; l++) {
      const left = VALUES * (l - 1);
      const block = products(changes, seen[l].changes, weights);
      for (const [at, product] of block.entries()) {
        const [i, j] = [Math.floor(at / VALUES), at % VALUES];
        rows[top + i][left + j] = shares[k][l] * product;
        rows[left + j][top + i] = shares[k][l] * product;
      }
    }
    const misses = new Float64Array(weights.length);
    for (const [l, { values }] of seen.entries()) {
      const share = shares[k][l];
      for (let n = 0; n < misses.length; n++) misses[n] += share * weights[n] * values[n];
    }
    const right = new Float64Array(VALUES);
    for (let n = 0, at = 0; n < misses.length; n++, at += VALUES)
      for (let i = 0; i < VALUES; i++) right[i] -= misses[n] * changes[at + i];
    for (let i = 0; i < VALUES; i++) rows[top + i][free] = right[i];
  }
  for (let i = 0; i < free; i++) rows[i][i] *= 1 + 1e-6;
  return eliminate(rows);
}

/**
 * Refines where shots lie, all at once: the share of their details that is no sum of three pictures becomes least, as it is where shots of a matte surface
 * lie on each other (Shashua 1997; alignment by low rank: Peng et al. 2010; Gauss-Newton with the sums projected out: Kaufman 1975). Points in shadow do
 * not count, and those that do not fit count little. At least four shots; the first stays where it is. Where a shot goes astray all are left as they were; where
 * the shots fit nearly as well as if none had moved, as those of a shiny surface in near lamps on a tripod do, none has.
 */
export function* registerTogether(
  shots: readonly Slopes[],
  points: Points,
  start: readonly Homography[],
): Steps<readonly Homography[]> {
  const [{ width, height }] = shots;
  const moved = (from: readonly Homography[], to: readonly Homography[]) =>
    Math.max(...to.map((one, k) => farthestMove(followed(inverted(from[k]), one), width, height))) *
    Math.max(width, height);
  const lit = litPoints(shots, points, start);
  if (lit.u.length < ENOUGH * VALUES * (shots.length - 1)) return start;
  yield;
  const details: Slopes[] = [];
  for (const { plane } of shots) {
    const broad = gaussian(plane, width, height, BROAD, MIRROR);
    const fine = plane.map((value, i) => value - broad[i]);
    details.push(slopesOf(fine, width, height));
    yield;
  }
  const seenIn = (homographies: readonly Homography[]) =>
    details.map((one, k) => changesAt(lit, one, homographies[k]));
  let homographies = start;
  let least = Number.POSITIVE_INFINITY;
  for (let round = 0; round < ROUNDS; round++) {
    const seen = seenIn(homographies);
    yield;
    const apart = whatIsApart(seen);
    if (round >= FIRST && apart.part > WORTH * least) break;
    least = apart.part;
    yield;
    const step = stepOf(seen, apart);
    yield;
    const next = homographies.map((one, k) =>
      k === 0 ? one : one.map((value, i) => value + step[VALUES * (k - 1) + i]),
    );
    if (!(moved(start, next) < ASTRAY)) return start;
    const isSettled = moved(homographies, next) < SETTLED;
    homographies = next;
    if (isSettled) break;
  }
  const unmoved = shots.map(() => UNMOVED);
  const [still, best] = [unmoved, homographies].map((ones) => whatIsApart(seenIn(ones)).part);
  return best < BETTER * still ? homographies : unmoved;
}
