import { blurring } from '../../filters/gaussian.ts';
import { PLANES } from '../../memory/pool.ts';
import type { Edges } from '../../raster/edges.ts';
import type { Sides } from '../../raster/sides.ts';
import type { Steps } from '../../work/steps.ts';

/** Standard deviation of OKLab colours about each pixel, all three together. `sigma` in pixels. */
export function* localContrast(
  lab: readonly Float32Array[],
  { width, height }: Sides,
  edges: Edges,
  sigma: number,
): Steps<Float32Array> {
  const out = PLANES.take(width * height).fill(0);
  const squares = PLANES.take(out.length);
  for (const plane of lab.slice(0, 3)) {
    for (let i = 0; i < plane.length; i++) squares[i] = plane[i] * plane[i];
    const mean = yield* blurring(plane, width, height, sigma, edges);
    const ofSquares = yield* blurring(squares, width, height, sigma, edges);
    for (let i = 0; i < out.length; i++) out[i] += Math.max(0, ofSquares[i] - mean[i] * mean[i]);
    PLANES.give(mean, ofSquares);
    yield;
  }
  PLANES.give(squares);
  for (let i = 0; i < out.length; i++) out[i] = Math.sqrt(out[i]);
  return out;
}
