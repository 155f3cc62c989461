import { luminance } from '../../../planes/luminance.ts';
import { Raster } from '../../../raster/raster.ts';
import { mean } from '../../../statistics/statistics.ts';
import type { Steps } from '../../../work/steps.ts';
import { type Fit, pointsOf, type Slopes, slopesOf } from './enhanced-correlation.ts';
import { alikeness } from './expected.ts';
import { firstShifts } from './first-shifts.ts';
import { type Homography, UNMOVED } from './homography.ts';
import { edgesOf, flattened, LIFT, nearLevel, pyramidOf } from './pyramid.ts';
import { registerByColour } from './register-colour.ts';
import { registerPairs } from './register-pairs.ts';
import { registerBySums } from './register-sums.ts';
import { registerTogether } from './register-together.ts';

/** Fewer shots than this let expect nothing of each other. */
const FEW = 4;
/** Of three shots, two that are not more alike than this are taken as they lie. */
const ALIKE = 0.25;
/** At so many of the finest sizes shots are refined together. */
const TOGETHER = 2;
/** A fit that is no more alike than this is no better than none. */
const NO_BETTER = 0.02;

/** First shifts of shots, from their pyramids. */
function* shiftsOf(pyramids: readonly Slopes[][]): Steps<Homography[]> {
  const near = nearLevel(pyramids[0]);
  const { width, height } = pyramids[0][near];
  return yield* firstShifts(
    pyramids.map((pyramid) => edgesOf(pyramid[near])),
    width,
    height,
  );
}

/** Where two or three shots show the same edges; those that are hardly alike are taken as they lie. */
function* registerFew(pyramids: readonly Slopes[][]): Steps<Fit[]> {
  const start = yield* shiftsOf(pyramids);
  const edges = pyramids.map((pyramid) =>
    pyramid.map((level) =>
      slopesOf(
        edgesOf(level).map((value) => value + LIFT),
        level.width,
        level.height,
      ),
    ),
  );
  const fits = yield* registerPairs(edges, start);
  return fits.map((fit) => (fit.correlation > ALIKE ? fit : { ...fit, homography: UNMOVED }));
}

/**
 * Where every shot shows what the first shows, from its linear red, green and blue of the same sides; the first stays where it is. Where the surface has colours
 * of its own they look the same in any light, and each shot is aligned to the first by them; otherwise by the edges that it shows. Four shots and more are then refined
 * together.
 */
export function* register(
  shots: readonly Float32Array[][],
  width: number,
  height: number,
): Steps<readonly Fit[]> {
  const byColour = yield* registerByColour(shots, width, height);
  if (byColour && shots.length < FEW) return byColour;
  const pyramids: Slopes[][] = [];
  for (const planes of shots) {
    const grey = luminance(new Raster(width, height, planes));
    pyramids.push(yield* pyramidOf(flattened(grey, width, height), width, height));
  }
  if (shots.length < FEW) return yield* registerFew(pyramids);
  const finest = pyramids.map((pyramid) => pyramid[pyramid.length - 1]);
  const points = pointsOf(width, height);
  let start: readonly Homography[] = shots.map(() => UNMOVED);
  if (byColour) start = byColour.map(({ homography }) => homography);
  else {
    const found = yield* registerBySums(pyramids, points, yield* shiftsOf(pyramids), TOGETHER);
    const [still, moved] = [start, found].map((one) => mean(alikeness(finest, points, one)));
    if (moved > still + NO_BETTER) start = found;
  }
  for (const level of pyramids[0].keys()) {
    if (level < pyramids[0].length - TOGETHER) continue;
    start = yield* registerTogether(
      pyramids.map((pyramid) => pyramid[level]),
      points,
      start,
    );
  }
  const correlations = alikeness(finest, points, start);
  return start.map((homography, k) => ({ homography, correlation: correlations[k] }));
}
