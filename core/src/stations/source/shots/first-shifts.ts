import type { Steps } from '../../../work/steps.ts';
import { type Homography, shifted } from './homography.ts';
import { phaseCorrelation, type Shift } from './phase-correlation.ts';

/** Cameras move no farther than this share of the longer edge. */
export const FARTHEST = 0.25;

/**
 * First shifts of all shots against the first: by phase correlation of every pair, along those that are most alike, since shots
 * lit from opposite sides are not.
 */
export function* firstShifts(
  details: readonly Float32Array[],
  width: number,
  height: number,
): Steps<Homography[]> {
  const longer = Math.max(width, height);
  const pairs: { a: number; b: number; shift: Shift }[] = [];
  for (let a = 0; a < details.length; a++) {
    for (let b = a + 1; b < details.length; b++) {
      const shift = yield* phaseCorrelation(details[a], details[b], width, height, FARTHEST * longer);
      pairs.push({ a, b, shift });
    }
  }
  pairs.sort((one, other) => other.shift.peak - one.shift.peak);
  const found: ([number, number] | null)[] = details.map((_, k) => (k === 0 ? [0, 0] : null));
  for (let left = details.length - 1; left > 0; left--) {
    const { a, b, shift } = pairs.find((pair) => (found[pair.a] === null) !== (found[pair.b] === null))!;
    const [x, y] = [shift.x / longer, shift.y / longer];
    const [from, to] = [found[a], found[b]];
    if (from) found[b] = [from[0] + x, from[1] + y];
    else if (to) found[a] = [to[0] - x, to[1] - y];
  }
  return found.map((shift) => shifted(shift![0], shift![1]));
}
