import { firKernel } from '../kernels/gaussian-fir/reference.ts';
import { recursionFor, wayAlong } from '../kernels/gaussian-recursive/reference.ts';
import { KERNELS } from '../kernels/kernels.ts';
import { PLANES } from '../memory/pool.ts';
import { type Band, bandParts } from '../raster/band.ts';
import type { Edges } from '../raster/edges.ts';
import type { Sides } from '../raster/sides.ts';
import { runToEnd, type Steps } from '../work/steps.ts';

/** Above this σ (pixels) the recursive filter is both exact enough and faster. */
export const FIR_UP_TO = 3;
/** Pixels between two pauses: some milliseconds. */
const PAUSE_PIXELS = 2 ** 19;
/** Lines of a band go through the recursion side by side, in whole groups. */
const GROUP = 16;
/** Narrower strips would be fetched and put back piece by piece. */
const LEAST_COLUMNS = 256;

/** A band of lines in parts, of about as many pixels each as lie between two pauses. */
function* partsOf({ from, to }: Band, length: number, least = GROUP): Generator<Band> {
  const step = Math.max(least, Math.round(PAUSE_PIXELS / length / GROUP) * GROUP);
  yield* bandParts({ from, to }, step);
}

/** The sides of what is blurred, and what lies beyond them. */
export interface Field extends Sides {
  edges: Edges;
}

/** Whether a blur goes along the rows first and then along the columns, in a second pass. */
export const hasColumns = (sigma: number): boolean => sigma > FIR_UP_TO;

/** The first pass of a blur on some rows, which may be all of it (see `hasColumns`). */
export function* blurringRows(
  plane: Float32Array,
  out: Float32Array,
  { width, height, edges }: Field,
  sigma: number,
  rows: Band,
  by = KERNELS,
): Steps<void> {
  if (sigma <= 0.05) {
    out.set(plane.subarray(rows.from * width, rows.to * width), rows.from * width);
    return;
  }
  const kernel = firKernel(sigma);
  const recursion = recursionFor(sigma);
  const way = wayAlong(width, edges.x, sigma);
  for (const band of partsOf(rows, width)) {
    if (hasColumns(sigma)) by.recursiveRows(plane, out, width, way, recursion, band);
    else by.gaussianFirBand(plane, out, { width, height, edges }, kernel, band);
    yield;
  }
}

/** The second pass of a blur on some columns, in place, when the first has been over all rows. */
export function* blurringColumns(
  out: Float32Array,
  { width, height, edges }: Field,
  sigma: number,
  columns: Band,
  by = KERNELS,
): Steps<void> {
  const recursion = recursionFor(sigma);
  const way = wayAlong(height, edges.y, sigma);
  for (const band of partsOf(columns, height, LEAST_COLUMNS)) {
    by.recursiveColumns(out, width, way, recursion, band);
    yield;
  }
}

/**
 * Gaussian blur of one plane that pauses on its way; σ in pixels, ≤ 0.05 gives a copy. Wraps or mirrors by axis. Up to σ 3 by
 * direct convolution, above by a fourth-order recursive filter, forward and back (van Vliet, Young & Verbeek 1998), whose
 * cost hardly depends on σ. `by` says whose kernels do it: those in use unless they are compared with others.
 */
export function* blurring(
  plane: Float32Array,
  width: number,
  height: number,
  sigma: number,
  edges: Edges,
  by = KERNELS,
): Steps<Float32Array> {
  const out = PLANES.take(plane.length);
  const field = { width, height, edges };
  yield* blurringRows(plane, out, field, sigma, { from: 0, to: height }, by);
  if (hasColumns(sigma)) yield* blurringColumns(out, field, sigma, { from: 0, to: width }, by);
  return out;
}

/** Gaussian blur of one plane in one go: see `blurring`. */
export const gaussian = (
  plane: Float32Array,
  width: number,
  height: number,
  sigma: number,
  edges: Edges,
): Float32Array => runToEnd(blurring(plane, width, height, sigma, edges));
