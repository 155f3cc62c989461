import type { Steps } from '../../../work/steps.ts';
import {
  enhancedCorrelation,
  type Fit,
  FREE,
  pointsOf,
  type Slopes,
  seenAt,
} from './enhanced-correlation.ts';
import { FARTHEST } from './first-shifts.ts';
import { farthestMove, type Homography, UNMOVED } from './homography.ts';

const ROUNDS = 20;
/** A fit that is no more alike than this is no better than none. */
const NO_BETTER = 0.0003;

/**
 * Where shots show what the first shows, each by itself, from pictures that look the same in any light, in sizes from coarse to fine. A shot that
 * lies where the first does is left there.
 */
export function* registerPairs(pyramids: readonly Slopes[][], start: readonly Homography[]): Steps<Fit[]> {
  const fits: Fit[] = [{ homography: UNMOVED, correlation: 1 }];
  const [{ width, height }] = pyramids[0];
  const points = pointsOf(width, height);
  const last = pyramids[0].length - 1;
  for (const [k, pyramid] of pyramids.entries()) {
    if (k === 0) continue;
    let fit: Fit = { homography: start[k], correlation: 0 };
    let still: Fit = fit;
    for (const [level, one] of pyramid.entries()) {
      const expected = seenAt(points, pyramids[0][level], UNMOVED);
      const free = level === 0 ? FREE.shift : level < last ? FREE.affine : FREE.all;
      fit = enhancedCorrelation(points, expected, one, fit.homography, free, ROUNDS);
      still = enhancedCorrelation(points, expected, one, UNMOVED, free, 1);
      yield;
    }
    const isMoved =
      fit.correlation > still.correlation + NO_BETTER &&
      farthestMove(fit.homography, width, height) < FARTHEST;
    fits.push(isMoved ? fit : { homography: UNMOVED, correlation: still.correlation });
  }
  return fits;
}
