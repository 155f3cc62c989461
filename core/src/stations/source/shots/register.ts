import { luminance } from '../../../planes/luminance.ts';
import { Raster } from '../../../raster/raster.ts';
import { mean } from '../../../statistics/statistics.ts';
import type { Steps } from '../../../work/steps.ts';
import {
  enhancedCorrelation,
  type Fit,
  FREE,
  pointsOf,
  type Slopes,
  seenAt,
  slopesOf,
} from './enhanced-correlation.ts';
import { alikeness, expectedOf, withoutMisfits } from './expected.ts';
import { FARTHEST, firstShifts } from './first-shifts.ts';
import { farthestMove, followed, inverted, UNMOVED } from './homography.ts';
import { detailOf, flattened, LIFT, nearLevel, pyramidOf } from './pyramid.ts';
import { registerByColour } from './register-colour.ts';
import { registerPairs } from './register-pairs.ts';

/** Fewer shots than this let expect nothing of each other. */
const FEW = 4;
const ROUNDS = 5;
const SWEEPS = 3;
/** At the finest size they go on until no corner moves by more than this, in pixels, at most so often. */
const SETTLED = 0.01;
const LAST_SWEEPS = 14;
/** Points of the picture that are looked at. */
const POINTS = 16_000;
/** Of three shots, two that are not more alike than this are taken as they lie. */
const ALIKE = 0.6;
/** Each shot is moved a little beyond where it fits the others, which are still to come after it. */
const OVER = 1.6;
/** A fit that is no more alike than this is no better than none. */
const NO_BETTER = 0.02;

/**
 * Where every shot shows what the first shows, from its linear red, green and blue of the same sides; the first stays where it is. Where the surface has colours
 * of its own they look the same in any light, and each shot is aligned to the first by them. Otherwise, from coarse to fine, each is brought to what the others
 * let expect in its light, which looks alike where the shots themselves do not; of three shots, two that are hardly alike are taken as they lie.
 */
export function* register(shots: readonly Float32Array[][], width: number, height: number): Steps<Fit[]> {
  const byColour = yield* registerByColour(shots, width, height);
  if (byColour) return byColour;
  const pyramids: Slopes[][] = [];
  for (const planes of shots) {
    const grey = luminance(new Raster(width, height, planes));
    pyramids.push(yield* pyramidOf(flattened(grey, width, height), width, height));
  }
  const near = nearLevel(pyramids[0]);
  const { width: w, height: h } = pyramids[0][near];
  const start = yield* firstShifts(
    pyramids.map((pyramid) => detailOf(pyramid[near])),
    w,
    h,
  );
  if (shots.length < FEW) {
    const details = pyramids.map((pyramid) =>
      pyramid.map((level) =>
        slopesOf(
          detailOf(level).map((value) => value + LIFT),
          level.width,
          level.height,
        ),
      ),
    );
    const fits = yield* registerPairs(details, start);
    return fits.map((fit) => (fit.correlation > ALIKE ? fit : { ...fit, homography: UNMOVED }));
  }
  let homographies = start;
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
