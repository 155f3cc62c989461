import { firKernel } from '../kernels/gaussian-fir/reference.ts';
import { recursionFor, wayAlong } from '../kernels/gaussian-recursive/reference.ts';
import { KERNELS, type Kernels } from '../kernels/kernels.ts';
import { PLANES } from '../memory/pool.ts';
import type { Band } from '../raster/band.ts';
import type { Edges } from '../raster/edges.ts';
import { runToEnd, type Steps } from '../work/steps.ts';

/** Above this σ (pixels) the recursive filter is both exact enough and faster. */
export const FIR_UP_TO = 3;
/** Pixels between two pauses: some milliseconds. */
const PAUSE_PIXELS = 2 ** 19;
/** Lines of a band go through the recursion side by side, in whole groups. */
const GROUP = 16;
/** Narrower strips would be fetched and put back piece by piece. */
const LEAST_COLUMNS = 256;

/** A count of lines in bands, of about this many pixels each. */
function* bandsOf(count: number, length: number, least = GROUP): Generator<Band> {
  const step = Math.max(least, Math.round(PAUSE_PIXELS / length / GROUP) * GROUP);
  for (let from = 0; from < count; from += step) {
    const to = Math.min(count, from + step);
    yield { from, to };
  }
}

/** What is blurred, and what lies beyond its edges. */
interface Field {
  width: number;
  height: number;
  edges: Edges;
}

function* direct(
  plane: Float32Array,
  out: Float32Array,
  field: Field,
  sigma: number,
  by: Kernels,
): Steps<void> {
  const kernel = firKernel(sigma);
  for (const band of bandsOf(field.height, field.width)) {
    by.gaussianFirBand(plane, out, field, kernel, band);
    yield;
  }
}

function* recursive(
  plane: Float32Array,
  out: Float32Array,
  { width, height, edges }: Field,
  sigma: number,
  by: Kernels,
): Steps<void> {
  const recursion = recursionFor(sigma);
  const [x, y] = [wayAlong(width, edges.x, sigma), wayAlong(height, edges.y, sigma)];
  for (const band of bandsOf(height, width)) {
    by.recursiveRows(plane, out, width, x, recursion, band);
    yield;
  }
  for (const band of bandsOf(width, height, LEAST_COLUMNS)) {
    by.recursiveColumns(out, width, y, recursion, band);
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
  if (sigma <= 0.05) return plane.slice();
  const out = PLANES.take(plane.length);
  yield* (sigma <= FIR_UP_TO ? direct : recursive)(plane, out, { width, height, edges }, sigma, by);
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
