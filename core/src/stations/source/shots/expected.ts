import { leastSquares } from '../../../algebra/least-squares.ts';
import { percentiles } from '../../../statistics/statistics.ts';
import { type Points, type Slopes, seenAt, UNSEEN } from './enhanced-correlation.ts';
import type { Homography } from './homography.ts';
import { BLACK } from './pyramid.ts';

/** One in so many points says how a shot follows from the others. */
const FITTED = 8;
/** Share of the points that counts: highlights and shadows follow from no sum of pictures. */
const FITTING = 85;

/**
 * What a shot should look like at each point: the sum of the others that comes nearest to it. A matte surface in any light is a sum of three pictures
 * of it (Shashua 1997).
 */
export function expectedOf(target: Float64Array, others: readonly Float64Array[]): Float64Array {
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
export function withoutMisfits(expected: Float64Array, target: Float64Array): Float64Array {
  const misses = expected.map((value, n) =>
    value === UNSEEN || target[n] === UNSEEN ? 0 : Math.abs(target[n] - value) / (value + BLACK),
  );
  const [limit] = percentiles(misses, [FITTING]);
  return expected.map((value, n) => (misses[n] > limit ? UNSEEN : value));
}

/** How much each shot looks like what the others let expect: the correlation where all are seen. */
export function alikeness(
  shots: readonly Slopes[],
  points: Points,
  homographies: readonly Homography[],
): number[] {
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
