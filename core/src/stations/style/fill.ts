import { blurring } from '../../filters/gaussian.ts';
import type { Edges } from '../../raster/edges.ts';
import type { Sides } from '../../raster/sides.ts';
import type { Steps } from '../../work/steps.ts';

/** σ by which colours spread, as shares of the shorter edge: each twice as wide, until all is reached. */
const FIRST = 1 / 256;
const WIDEST = 1 / 2;
/** Weight from which on a spread colour can be trusted. */
const SURE = 0.05;
/** Weights up to this are within the error of the filter, which may be below 0. */
const LEAST = 0.002;

/**
 * Planes whose values under transparent pixels are taken from what is opaque about them, so that nothing that is not seen has
 * an effect. `alpha` is opacity 0..1; what is opaque stays as it is.
 */
export function* filled(
  planes: readonly Float32Array[],
  alpha: Float32Array,
  { width, height }: Sides,
  edges: Edges,
): Steps<Float32Array[]> {
  const edge = Math.min(width, height);
  const weighted = planes.map((plane) => plane.map((value, i) => value * alpha[i]));
  const out = planes.map((plane) => plane.slice());
  const left = alpha.map((value) => 1 - value);
  for (const [c, plane] of out.entries()) plane.set(weighted[c]);
  for (let share = FIRST; share <= WIDEST; share *= 2) {
    const weights = yield* blurring(alpha, width, height, share * edge, edges);
    const isLast = 2 * share > WIDEST;
    const trust = weights.map((weight) => (isLast ? 1 : Math.min(1, Math.max(0, weight - LEAST) / SURE)));
    for (const [c, plane] of weighted.entries()) {
      const spread = yield* blurring(plane, width, height, share * edge, edges);
      for (let i = 0; i < spread.length; i++) {
        out[c][i] += left[i] * trust[i] * (spread[i] / Math.max(LEAST, weights[i]));
      }
    }
    for (let i = 0; i < left.length; i++) left[i] *= 1 - trust[i];
  }
  return out;
}
