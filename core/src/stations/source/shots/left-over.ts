import { gaussian } from '../../../filters/gaussian.ts';
import { MIRROR } from '../../../raster/edges.ts';
import { percentiles } from '../../../statistics/statistics.ts';
import type { Steps } from '../../../work/steps.ts';
import { pointsOf, seenAt, slopesOf, UNSEEN } from './enhanced-correlation.ts';
import { expectedOf, withoutMisfits } from './expected.ts';
import type { Homography } from './homography.ts';
import { flattened, LIFT, SOFT } from './pyramid.ts';

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
  const points = pointsOf(width, height);
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
