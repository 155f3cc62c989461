import { blurring } from '../../../filters/gaussian.ts';
import { KERNELS } from '../../../kernels/kernels.ts';
import { PLANES } from '../../../memory/pool.ts';
import { type Edges, MIRROR, TORUS } from '../../../raster/edges.ts';
import type { Raster } from '../../../raster/raster.ts';
import type { Sides } from '../../../raster/sides.ts';
import { percentiles } from '../../../statistics/statistics.ts';
import type { Checkpoint } from '../../../work/checkpoint.ts';
import { PAUSE_ROWS, runSteps, type Steps } from '../../../work/steps.ts';
import type { Twin } from './patches.ts';

const LOW_PERCENT = 20;

const lightness = ({ planes }: Raster): Float32Array =>
  planes.length === 1 ? planes[0] : KERNELS.sumPlanes(planes, [1 / 3, 1 / 3, 1 / 3]);

/** How far two planes are apart, in place of the second. */
function apart(plane: Float32Array, other: Float32Array): void {
  for (let i = 0; i < plane.length; i++) other[i] = Math.abs(plane[i] - other[i]);
}

/** Strength of fine detail about each pixel. */
function* fine(plane: Float32Array, width: number, height: number, edges: Edges): Steps<Float32Array> {
  const detail = yield* blurring(plane, width, height, 1, edges);
  apart(plane, detail);
  yield;
  const out = yield* blurring(detail, width, height, 4, edges);
  PLANES.give(detail);
  return out;
}

/** Products of the slopes of a plane along rows `from` up to `to`: across by across, down by down, across by down. */
function slopeProducts(
  plane: Float32Array,
  { width, height }: Sides,
  edges: Edges,
  [xx, yy, xy]: Float32Array[],
  from: number,
  to: number,
): void {
  for (let y = from; y < to; y++) {
    const up = (y === 0 ? (edges.y === 'wrap' ? height - 1 : 0) : y - 1) * width;
    const down = (y === height - 1 ? (edges.y === 'wrap' ? 0 : y) : y + 1) * width;
    for (let x = 0; x < width; x++) {
      const left = x === 0 ? (edges.x === 'wrap' ? width - 1 : 0) : x - 1;
      const right = x === width - 1 ? (edges.x === 'wrap' ? 0 : x) : x + 1;
      const gx = plane[y * width + right] - plane[y * width + left];
      const gy = plane[down + x] - plane[up + x];
      const i = y * width + x;
      xx[i] = gx * gx;
      yy[i] = gy * gy;
      xy[i] = gx * gy;
    }
  }
}

/** How far the larger eigenvalue of the tensor stands out, in place of the first plane. */
function rules([xx, yy, xy]: Float32Array[], from: number, to: number): void {
  for (let i = from; i < to; i++) {
    const [x, y] = [xx[i] - yy[i], 2 * xy[i]];
    xx[i] = Math.sqrt(x * x + y * y) / (xx[i] + yy[i] + 1e-9);
  }
}

/** How much one direction rules about each pixel, 0…1 (coherence of the structure tensor). */
async function coherence(
  plane: Float32Array,
  width: number,
  height: number,
  edges: Edges,
  checkpoint: Checkpoint,
): Promise<Float32Array> {
  const soft = await runSteps(blurring(plane, width, height, 1, edges), checkpoint);
  const tensor = [0, 1, 2].map(() => PLANES.take(plane.length));
  for (let y = 0; y < height; y += PAUSE_ROWS) {
    await checkpoint(1);
    slopeProducts(soft, { width, height }, edges, tensor, y, Math.min(height, y + PAUSE_ROWS));
  }
  PLANES.give(soft);
  const sigma = Math.max(2, Math.min(width, height) / 90);
  const smooth: Float32Array[] = [];
  for (const one of tensor) {
    await checkpoint(1);
    smooth.push(await runSteps(blurring(one, width, height, sigma, edges), checkpoint));
  }
  PLANES.give(...tensor);
  for (let from = 0; from < plane.length; from += PAUSE_ROWS * width) {
    await checkpoint(1);
    rules(smooth, from, Math.min(plane.length, from + PAUSE_ROWS * width));
  }
  PLANES.give(smooth[1], smooth[2]);
  return smooth[0];
}

export interface DetailScore {
  /** Low percentile of fine detail at the seams over that at their twins: below 1 something is smeared. */
  detail: number;
  /** Mean coherence at the seams over that at their twins, and the source's own mean. */
  coherence: number;
  grain: number;
  /** Mean step over the seams over that at their twins: above 1 a line shows. */
  step: number;
  /** Mean jump of broad tone over the seams over the source's usual one. */
  broad: number;
}

const mean = (values: ArrayLike<number>): number => {
  let sum = 0;
  for (let i = 0; i < values.length; i++) sum += values[i];
  return sum / Math.max(1, values.length);
};

/** What is below half a code of 255 is not seen. */
const UNSEEN = 0.002;

const ratioOf = (a: number, b: number) => (a + UNSEEN) / (b + UNSEEN);

/** How far on each side of a seam broad tone is compared. */
const broadHalf = (size: number) => Math.max(1, Math.round(size / 48));

/** What is measured on a source once, for all tiles of `size` pixels made from it. */
export interface SourceDetail {
  source: Raster;
  fine: Float32Array;
  ridges: Float32Array;
  grain: number;
  /** Usual difference of broad tone over the width at which seams are compared. */
  tone: number;
}

/** Mean difference of values so far apart, across and down. */
function usualStep(plane: Float32Array, { width, height }: Sides, apart: number): number {
  let sum = 0;
  let count = 0;
  for (let y = 0; y + apart < height; y += 3) {
    for (let x = 0; x + apart < width; x += 3) {
      const i = y * width + x;
      sum += Math.abs(plane[i + apart] - plane[i]) + Math.abs(plane[i + apart * width] - plane[i]);
      count += 2;
    }
  }
  return sum / Math.max(1, count);
}

/** Measures the source. Encoded values. */
export async function sourceDetail(
  source: Raster,
  size: number,
  checkpoint: Checkpoint,
): Promise<SourceDetail> {
  const { width, height } = source;
  const plane = lightness(source);
  const ridges = await coherence(plane, width, height, MIRROR, checkpoint);
  await checkpoint(1);
  const broad = await runSteps(blurring(plane, width, height, size / 48, MIRROR), checkpoint);
  const tone = usualStep(broad, source, 2 * broadHalf(size));
  PLANES.give(broad);
  await checkpoint(1);
  const own = await runSteps(fine(plane, width, height, MIRROR), checkpoint);
  await checkpoint(1);
  return { source, fine: own, ridges, grain: mean(ridges), tone };
}

/**
 * Smearing, broken ridges, lines and jumps of tone along the seams of a tile, each compared with the places
 * of the source that are most alike. Encoded pictures at one scale.
 */
export async function detailScore(
  tile: Raster,
  from: SourceDetail,
  twins: Twin[],
  checkpoint: Checkpoint,
): Promise<DetailScore> {
  const { width, height } = tile;
  const size = Math.max(width, height);
  const { source } = from;
  const wide = source.width;
  const here = lightness(tile);
  const at = twins.map(({ crossing: { x, y } }) => y * width + x);
  const twin = twins.map(({ x, y }) => y * wide + x);
  const take = (plane: Float32Array, places: number[]) => places.map((i) => plane[i]);
  const low = (values: number[]) => percentiles(values, [LOW_PERCENT])[0];
  const steps = { here: 0, there: 0, count: 0 };
  for (const { crossing, x, y } of twins) {
    const { toX, toY } = crossing;
    const next = ((crossing.y + toY) % height) * width + ((crossing.x + toX) % width);
    const i = y * wide + x;
    for (const [c, plane] of tile.planes.entries()) {
      steps.here += Math.abs(plane[next] - plane[crossing.y * width + crossing.x]);
      steps.there += Math.abs(source.planes[c][i + toY * wide + toX] - source.planes[c][i]);
      steps.count++;
    }
  }
  const half = broadHalf(size);
  const broad = await runSteps(blurring(here, width, height, size / 48, TORUS), checkpoint);
  const jumps = twins.map(({ crossing: { x, y, toX, toY } }) => {
    const [dx, dy] = [toX * half, toY * half];
    const before = ((y - dy + height) % height) * width + ((x - dx + width) % width);
    const after = ((y + dy) % height) * width + ((x + dx) % width);
    return Math.abs(broad[after] - broad[before]);
  });
  await checkpoint(1);
  const ridges = await coherence(here, width, height, TORUS, checkpoint);
  await checkpoint(1);
  const own = await runSteps(fine(here, width, height, TORUS), checkpoint);
  await checkpoint(1);
  return {
    detail: ratioOf(low(take(own, at)), low(take(from.fine, twin))),
    coherence: ratioOf(mean(take(ridges, at)), mean(take(from.ridges, twin))),
    grain: from.grain,
    step: ratioOf(steps.here / Math.max(1, steps.count), steps.there / Math.max(1, steps.count)),
    broad: ratioOf(mean(jumps), from.tone),
  };
}
