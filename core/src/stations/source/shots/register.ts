import { leastSquares } from '../../../algebra/least-squares.ts';
import { gaussian } from '../../../filters/gaussian.ts';
import { MIRROR } from '../../../raster/edges.ts';
import { Raster } from '../../../raster/raster.ts';
import { resizeArea } from '../../../sampling/resize.ts';
import { mean, percentiles } from '../../../statistics/statistics.ts';
import type { Steps } from '../../../work/steps.ts';
import {
  enhancedCorrelation,
  type Fit,
  FREE,
  type Points,
  pointsOf,
  type Slopes,
  seenAt,
  slopesOf,
  UNSEEN,
} from './enhanced-correlation.ts';
import { farthestMove, followed, type Homography, inverted, UNMOVED } from './homography.ts';
import { phaseCorrelation, type Shift } from './phase-correlation.ts';

/** Shorter side of the smallest picture on the way from coarse to fine. */
const COARSEST = 64;
/** Shorter side at which the first shift is looked for. */
const SHIFTED = 256;
const ROUNDS = 5;
const SWEEPS = 3;
/** At the finest size they go on until no corner moves by more than this, in pixels, at most so often. */
const SETTLED = 0.01;
const LAST_SWEEPS = 14;
/** Share of the points that counts then: highlights and shadows follow from no sum of pictures. */
const FITTING = 85;
/** Of three shots, two that are not more alike than this are taken as they lie. */
const ALIKE = 0.6;
/** Each shot is moved a little beyond where it fits the others, which are still to come after it. */
const OVER = 1.6;
/** A fit that is no more alike than this is no better than none. */
const NO_BETTER = 0.01;
/** Cameras move no farther than this share of the longer edge. */
const FARTHEST = 0.25;
const SOFT = 1;
const BLACK = 0.004;
/** What is broad, as a share of the longer edge. */
const FALL_OFF = 0.12;
/** Points of the picture that are looked at. */
const POINTS = 16_000;
/** One in so many of them says how a shot follows from the others. */
const FITTED = 8;
/** What is broad, in pixels where the first shift is looked for. */
const BROAD = 8;

/** A picture without broad light, such as the fall-off of a lamp that is near: about 1 on the whole. */
function flattened(luminance: Float32Array, width: number, height: number): Float32Array {
  const broad = gaussian(luminance, width, height, FALL_OFF * Math.max(width, height), MIRROR);
  return luminance.map((value, i) => Math.max(0, value) / (broad[i] + BLACK));
}

/** Sizes of a picture from coarse to fine, without broad light. */
function* pyramidOf(luminance: Float32Array, width: number, height: number): Steps<Slopes[]> {
  const levels: Slopes[] = [];
  let raster = new Raster(width, height, [flattened(luminance, width, height)]);
  for (;;) {
    const soft = gaussian(raster.planes[0], raster.width, raster.height, SOFT, MIRROR);
    levels.unshift(slopesOf(soft, raster.width, raster.height));
    yield;
    if (Math.min(raster.width, raster.height) < 2 * COARSEST) return levels;
    raster = resizeArea(raster, raster.width >> 1, raster.height >> 1);
    yield;
  }
}

/** What the first shift is looked for in: what a place is like beside its surroundings. */
function detailOf({ plane, width, height }: Slopes): Float32Array {
  const log = plane.map((value) => Math.log(Math.max(0, value) + BLACK));
  const broad = gaussian(log, width, height, BROAD, MIRROR);
  return log.map((value, i) => value - broad[i]);
}

/**
 * What a shot should look like at each point: the sum of the others that comes nearest to it. A matte surface in any light is a sum of three pictures
 * of it (Shashua 1997).
 */
function expectedOf(target: Float64Array, others: readonly Float64Array[]): Float64Array {
  const isSeen = (n: number) => others.every((values) => values[n] !== UNSEEN);
  const rows: number[][] = [];
  const values: number[] = [];
  const weights: number[] = [];
  for (let n = 0; n < target.length; n += FITTED) {
    if (target[n] === UNSEEN || !isSeen(n)) continue;
    rows.push(others.map((one) => one[n]));
    values.push(target[n]);
    // Dark pixels count like bright ones.
    weights.push(1 / (target[n] + BLACK) ** 2);
  }
  if (rows.length < FITTED * others.length) return target.map(() => UNSEEN);
  const shares = leastSquares(rows, values, weights);
  return target.map((_, n) =>
    isSeen(n)
      ? Math.max(
          0,
          shares.reduce((sum, share, k) => sum + share * others[k][n], 0),
        )
      : UNSEEN,
  );
}

/** What is expected, without the points where a shot shows something else. */
function withoutMisfits(expected: Float64Array, target: Float64Array): Float64Array {
  const misses = expected.map((value, n) =>
    value === UNSEEN || target[n] === UNSEEN ? 0 : Math.abs(target[n] - value) / (value + BLACK),
  );
  const [limit] = percentiles(misses, [FITTING]);
  return expected.map((value, n) => (misses[n] > limit ? UNSEEN : value));
}

/**
 * First shifts of all shots against the first, in shares of the longer edge: by phase correlation of every pair, along those that are most alike, since shots
 * lit from opposite sides are not.
 */
function* firstShifts(shots: readonly Slopes[]): Steps<[number, number][]> {
  const [{ width, height }] = shots;
  const longer = Math.max(width, height);
  const details = shots.map(detailOf);
  const pairs: { a: number; b: number; shift: Shift }[] = [];
  for (let a = 0; a < shots.length; a++) {
    for (let b = a + 1; b < shots.length; b++) {
      const shift = yield* phaseCorrelation(details[a], details[b], width, height, FARTHEST * longer);
      pairs.push({ a, b, shift });
    }
  }
  pairs.sort((one, other) => other.shift.peak - one.shift.peak);
  const found: ([number, number] | null)[] = shots.map((_, k) => (k === 0 ? [0, 0] : null));
  for (let left = shots.length - 1; left > 0; left--) {
    const { a, b, shift } = pairs.find((pair) => (found[pair.a] === null) !== (found[pair.b] === null))!;
    const [x, y] = [shift.x / longer, shift.y / longer];
    const [from, to] = [found[a], found[b]];
    if (from) found[b] = [from[0] + x, from[1] + y];
    else if (to) found[a] = [to[0] - x, to[1] - y];
  }
  return found as [number, number][];
}

/** Keeps detail above 0, as values that are seen are. */
const LIFT = 10;

/** Where two shots show what the first shows, each by itself: only as far as paint makes them alike. */
function* registerPairs(pyramids: Slopes[][], start: Homography[]): Steps<Fit[]> {
  const fits: Fit[] = [{ homography: UNMOVED, correlation: 1 }];
  const [{ width, height }] = pyramids[0];
  const points = pointsOf(width, height, POINTS);
  for (const [k, pyramid] of pyramids.entries()) {
    if (k === 0) continue;
    let fit: Fit = { homography: start[k], correlation: 0 };
    for (const [level, one] of pyramid.entries()) {
      const { width: w, height: h } = one;
      const lifted = (slopes: Slopes) =>
        slopesOf(
          detailOf(slopes).map((value) => value + LIFT),
          w,
          h,
        );
      const expected = seenAt(points, lifted(pyramids[0][level]), UNMOVED);
      const free = level === 0 ? FREE.shift : FREE.affine;
      fit = enhancedCorrelation(points, expected, lifted(one), fit.homography, free, 4 * ROUNDS);
      yield;
    }
    const isAlike = fit.correlation > ALIKE && farthestMove(fit.homography, width, height) < FARTHEST;
    fits.push(isAlike ? fit : { homography: UNMOVED, correlation: fit.correlation });
  }
  return fits;
}

/**
 * Where every shot shows what the first shows, from linear luminance of the same sides. Shifts by phase correlation; then, from coarse to
 * fine, each shot is brought to what the others let expect in its light, which looks alike where the shots themselves do not. The first stays where
 * it is.
 */
export function* register(shots: readonly Float32Array[], width: number, height: number): Steps<Fit[]> {
  const pyramids: Slopes[][] = [];
  for (const shot of shots) pyramids.push(yield* pyramidOf(shot, width, height));
  const isNear = (level: Slopes) => Math.min(level.width, level.height) <= SHIFTED;
  const near = Math.max(0, pyramids[0].findLastIndex(isNear));
  const shifts = yield* firstShifts(pyramids.map((pyramid) => pyramid[near]));
  const start: Homography[] = shifts.map(([x, y]) => [1, 0, x, 0, 1, y, 0, 0]);
  let homographies = start;
  if (shots.length < 4) return yield* registerPairs(pyramids, start);
  const points = pointsOf(width, height, POINTS);
  const last = pyramids[0].length - 1;
  for (let level = 0; level <= last; level++) {
    const free = level === 0 ? FREE.shift : level < last ? FREE.affine : FREE.all;
    const seen = pyramids.map((pyramid, k) => seenAt(points, pyramid[level], homographies[k]));
    const sweeps = level === last ? LAST_SWEEPS : SWEEPS;
    for (let sweep = 0; sweep < sweeps; sweep++) {
      const before = homographies;
      for (const [k, pyramid] of pyramids.entries()) {
        const all = expectedOf(
          seen[k],
          seen.filter((_, n) => n !== k),
        );
        const expected = level === last && sweep > 0 ? withoutMisfits(all, seen[k]) : all;
        yield;
        const fit = enhancedCorrelation(points, expected, pyramid[level], homographies[k], free, ROUNDS);
        yield;
        const next = homographies[k].map((value, n) => value + OVER * (fit.homography[n] - value));
        if (farthestMove(next, width, height) > FARTHEST) continue;
        homographies = homographies.with(k, next);
        seen[k] = seenAt(points, pyramid[level], homographies[k]);
        yield;
      }
      const moved = homographies.map((one, k) =>
        farthestMove(followed(inverted(before[k]), one), width, height),
      );
      if (Math.max(...moved) * Math.max(width, height) < SETTLED) break;
    }
    // The first shot is where it is: what moved it moves all.
    const back = inverted(homographies[0]);
    homographies = homographies.map((one, k) => (k === 0 ? UNMOVED : followed(back, one)));
  }
  // Shots from a tripod are not moved by what their light does.
  const finest = pyramids.map((pyramid) => pyramid[last]);
  const still = alikeness(
    finest,
    points,
    shots.map(() => UNMOVED),
  );
  const moved = alikeness(finest, points, homographies);
  return mean(still) > mean(moved) - NO_BETTER
    ? still.map((correlation) => ({ homography: UNMOVED, correlation }))
    : moved.map((correlation, k) => ({ homography: homographies[k], correlation }));
}

/** How much each shot looks like what the others let expect: the correlation where all are seen. */
function alikeness(shots: readonly Slopes[], points: Points, homographies: readonly Homography[]): number[] {
  const seen = shots.map((shot, k) => seenAt(points, shot, homographies[k]));
  return seen.map((target, k) => {
    const expected = expectedOf(
      target,
      seen.filter((_, n) => n !== k),
    );
    let [count, a, b, aa, bb, ab] = [0, 0, 0, 0, 0, 0];
    for (let n = 0; n < target.length; n++) {
      if (expected[n] === UNSEEN || target[n] === UNSEEN) continue;
      count++;
      a += target[n];
      b += expected[n];
      aa += target[n] ** 2;
      bb += expected[n] ** 2;
      ab += target[n] * expected[n];
    }
    const spread = (aa - (a * a) / count) * (bb - (b * b) / count);
    return count > 0 && spread > 0 ? (ab - (a * b) / count) / Math.sqrt(spread) : 0;
  });
}

/** Blocks to a side in which what is left of a movement is measured. */
const BLOCKS = 8;
/** Percentile of the blocks that counts: a ball in the frame is no movement. */
const MOST_BLOCKS = 50;

/**
 * By how much shots are still off in parts of the picture where each is registered as a whole: how far half of the blocks are shifted at most (Lucas & Kanade
 * 1981), in shares of the longer edge.
 */
export function* leftOver(
  shots: readonly Float32Array[],
  homographies: readonly Homography[],
  width: number,
  height: number,
): Steps<number[]> {
  const points = pointsOf(width, height, POINTS);
  const slopes = shots.map((shot) =>
    slopesOf(gaussian(flattened(shot, width, height), width, height, SOFT, MIRROR), width, height),
  );
  const seen = slopes.map((one, k) => seenAt(points, one, homographies[k]));
  const left: number[] = [];
  for (const [k, { across, down, plane }] of slopes.entries()) {
    const expected = withoutMisfits(
      expectedOf(
        seen[k],
        seen.filter((_, n) => n !== k),
      ),
      seen[k],
    );
    // Slopes may be below 0; they are lifted to be told from what is not seen.
    const lifted = (values: Float32Array) => ({
      width,
      height,
      plane: values.map((value) => value + LIFT),
      across,
      down,
    });
    const [gx, gy] = [across, down].map((values) => seenAt(points, lifted(values), homographies[k]));
    yield;
    const sums = Array.from({ length: BLOCKS * BLOCKS }, () => new Float64Array(5));
    const longer = Math.max(width, height);
    for (let n = 0; n < expected.length; n++) {
      if (expected[n] === UNSEEN || seen[k][n] === UNSEEN) continue;
      const [i, j] = [
        Math.floor(((points.u[n] * longer) / width + 0.5) * BLOCKS),
        Math.floor(((points.v[n] * longer) / height + 0.5) * BLOCKS),
      ];
      const [x, y, miss] = [gx[n] - LIFT, gy[n] - LIFT, expected[n] - seen[k][n]];
      const sum = sums[j * BLOCKS + i];
      sum[0] += x * x;
      sum[1] += x * y;
      sum[2] += y * y;
      sum[3] += x * miss;
      sum[4] += y * miss;
    }
    const strength = plane.length > 0 ? sums.reduce((all, [xx, , yy]) => all + xx + yy, 0) / sums.length : 0;
    const shifts = sums.flatMap(([xx, xy, yy, x, y]) => {
      const determinant = xx * yy - xy * xy;
      // A block without detail says nothing.
      if (determinant <= 0.02 * strength * strength) return [];
      const [dx, dy] = [(yy * x - xy * y) / determinant, (xx * y - xy * x) / determinant];
      return [dx * dx + dy * dy];
    });
    left.push(shifts.length > 0 ? Math.sqrt(percentiles(shifts, [MOST_BLOCKS])[0]) / longer : 0);
  }
  return left;
}
