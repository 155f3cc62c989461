import { statistics } from '../../../statistics/statistics.ts';
import type { Steps } from '../../../work/steps.ts';
import type { Fit, Slopes } from './enhanced-correlation.ts';
import { firstShifts } from './first-shifts.ts';
import { detailOf, LIFT, nearLevel, pyramidOf } from './pyramid.ts';
import { registerPairs } from './register-pairs.ts';

/** Darker than this a colour is noise. */
const BLACK = 0.01;
/** Colours that differ less than this from place to place, in shares, tell nothing. */
const COLOURLESS = 0.015;
/** Correlation above which colours are sure to be those of the surface, and not of highlights and shadows. */
const SAME_COLOURS = 0.985;

/** How red a picture is against its blue, by the logarithm, lifted above 0: light of one colour changes it by the same everywhere. */
const tintOf = ([r, , b]: Float32Array[]): Float32Array =>
  r.map((value, i) => LIFT + Math.log((Math.max(0, value) + BLACK) / (Math.max(0, b[i]) + BLACK)));

/** Where every shot shows what the first shows, by the colours of the surface alone; null where they do not tell. */
export function* registerByColour(
  shots: readonly Float32Array[][],
  width: number,
  height: number,
): Steps<Fit[] | null> {
  const pyramids: Slopes[][] = [];
  for (const planes of shots) pyramids.push(yield* pyramidOf(tintOf(planes), width, height));
  const near = nearLevel(pyramids[0]);
  const level = pyramids[0][near];
  if (statistics(level.plane).deviation < COLOURLESS) return null;
  const details = pyramids.map((pyramid) => detailOf(pyramid[near]));
  const start = yield* firstShifts(details, level.width, level.height);
  const fits = yield* registerPairs(pyramids, start);
  return fits.every(({ correlation }) => correlation > SAME_COLOURS) ? fits : null;
}
