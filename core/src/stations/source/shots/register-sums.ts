import type { Steps } from '../../../work/steps.ts';
import { enhancedCorrelation, FREE, type Points, type Slopes, seenAt } from './enhanced-correlation.ts';
import { expectedOf } from './expected.ts';
import { FARTHEST } from './first-shifts.ts';
import { farthestMove, followed, type Homography, inverted, UNMOVED } from './homography.ts';

const ROUNDS = 5;
const SWEEPS = 3;
/** Each shot is moved a little beyond where it fits the others, which are still to come after it. */
const OVER = 1.6;

/**
 * Where every shot shows what the first shows, nearly: from coarse to fine, without so many of the finest sizes, each is brought to what the others let expect
 * in its light, which looks alike where the shots themselves do not. At least four shots.
 */
export function* registerBySums(
  pyramids: readonly Slopes[][],
  points: Points,
  start: readonly Homography[],
  without: number,
): Steps<readonly Homography[]> {
  let homographies = start;
  const levels = Math.max(1, pyramids[0].length - without);
  for (let level = 0; level < levels; level++) {
    const { width, height } = pyramids[0][level];
    const free = level === 0 ? FREE.shift : FREE.affine;
    const seen = pyramids.map((pyramid, k) => seenAt(points, pyramid[level], homographies[k]));
    for (let sweep = 0; sweep < SWEEPS; sweep++) {
      for (const [k, pyramid] of pyramids.entries()) {
        const expected = expectedOf(
          seen[k],
          seen.filter((_, n) => n !== k),
        );
        yield;
        const fit = enhancedCorrelation(points, expected, pyramid[level], homographies[k], free, ROUNDS);
        yield;
        const next = homographies[k].map((value, n) => value + OVER * (fit.homography[n] - value));
        if (farthestMove(next, width, height) > FARTHEST) continue;
        homographies = homographies.with(k, next);
        seen[k] = seenAt(points, pyramid[level], homographies[k]);
        yield;
      }
    }
    // The first shot is where it is: what moved it moves all.
    const back = inverted(homographies[0]);
    homographies = homographies.map((one, k) => (k === 0 ? UNMOVED : followed(back, one)));
  }
  return homographies;
}
