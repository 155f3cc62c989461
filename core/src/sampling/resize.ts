import { KERNELS } from '../kernels/kernels.ts';
import type { Taps, Weighing } from '../kernels/weigh/reference.ts';
import { type Edge, type Edges, edgeIndex, MIRROR } from '../raster/edges.ts';
import { Raster } from '../raster/raster.ts';
import { runToEnd, type Steps } from '../work/steps.ts';

const lanczos3 = (x: number): number => {
  const a = Math.abs(x);
  if (a < 1e-8) return 1;
  if (a >= 3) return 0;
  const p = Math.PI * a;
  return (3 * Math.sin(p) * Math.sin(p / 3)) / (p * p);
};

/** Taps for `count` samples from `origin` on, `step` apart, in samples of the input. */
function lanczosTaps(origin: number, step: number, count: number, stretch: number): Taps {
  const scale = Math.max(1, stretch);
  const reach = 3 * scale;
  const taps = Math.ceil(2 * reach) + 1;
  const first = new Int32Array(count);
  const weights = new Float32Array(count * taps);
  for (let i = 0; i < count; i++) {
    const centre = origin + i * step;
    const start = Math.ceil(centre - reach);
    first[i] = start;
    let sum = 0;
    for (let k = 0; k < taps; k++) {
      const w = lanczos3((start + k - centre) / scale);
      weights[i * taps + k] = w;
      sum += w;
    }
    for (let k = 0; k < taps; k++) weights[i * taps + k] /= sum;
  }
  return { first, count: taps, weights };
}

function areaTaps(from: number, to: number): Taps {
  const ratio = from / to;
  const count = Math.ceil(ratio) + 1;
  const first = new Int32Array(to);
  const weights = new Float32Array(to * count);
  for (let i = 0; i < to; i++) {
    const low = i * ratio;
    const high = low + ratio;
    first[i] = Math.floor(low + 1e-9);
    for (let k = 0; k < count; k++) {
      const cell = first[i] + k;
      const overlap = Math.min(high, cell + 1) - Math.max(low, cell);
      if (overlap > 1e-9) weights[i * count + k] = overlap / ratio;
    }
  }
  return { first, count, weights };
}

function indexed(taps: Taps, n: number, edge: Edge): Int32Array {
  const table = new Int32Array(taps.first.length * taps.count);
  for (let i = 0; i < taps.first.length; i++) {
    for (let k = 0; k < taps.count; k++) table[i * taps.count + k] = edgeIndex(taps.first[i] + k, n, edge);
  }
  return table;
}

/** How a picture is resized along both axes. */
interface Plan {
  across: Weighing;
  down: Weighing;
  /** Rows that are made at once. */
  most: number;
}

/** Values that are looked at for a band of rows, about: they stay near the processor. */
const BAND_VALUES = 2 ** 19;

function planOf({ width, height }: Raster, across: Taps, down: Taps, edges: Edges): Plan {
  const { first } = down;
  const step = first.length > 1 ? (first[first.length - 1] - first[0]) / (first.length - 1) : 1;
  const values = Math.max(across.first.length, width * step);
  return {
    across: { taps: across, samples: indexed(across, width, edges.x) },
    down: { taps: down, samples: indexed(down, height, edges.y) },
    most: Math.max(8, Math.floor(BAND_VALUES / values)),
  };
}

/** Rows of a plane by their numbers; where they follow one another, as they lie. */
function rowsOf(plane: Float32Array, width: number, numbers: Int32Array): Float32Array {
  const [first, count] = [numbers[0], numbers.length];
  if (numbers[count - 1] - first === count - 1) return plane.subarray(first * width, (first + count) * width);
  const out = new Float32Array(count * width);
  for (const [k, row] of numbers.entries()) {
    out.set(plane.subarray(row * width, (row + 1) * width), k * width);
  }
  return out;
}

/** Rows `from` up to `to` of a resized picture, written to `out` from its row `at` on. */
function resizeRows(raster: Raster, plan: Plan, from: number, to: number, out: Raster, at: number): void {
  const { first, count, weights } = plan.down.taps;
  const [begin, end] = [from * count, to * count];
  const asked = plan.down.samples.subarray(begin, end);
  const read = Int32Array.from(new Set(asked)).sort();
  const place = new Map(Array.from(read, (row, k) => [row, k]));
  const down = {
    taps: { first: first.subarray(from, to), count, weights: weights.subarray(begin, end) },
    samples: asked.map((row) => place.get(row)!),
  };
  for (const [c, plane] of raster.planes.entries()) {
    const lines = rowsOf(plane, raster.width, read);
    KERNELS.weighBand(lines, raster.width, plan.across, down, out.planes[c], at * out.width);
  }
}

/** Along both axes one after the other, band by band. */
function* separable(raster: Raster, across: Taps, down: Taps, edges: Edges): Steps<Raster> {
  const out = Raster.filled(across.first.length, down.first.length, raster.channels);
  const plan = planOf(raster, across, down, edges);
  for (let from = 0; from < out.height; from += plan.most) {
    resizeRows(raster, plan, from, Math.min(out.height, from + plan.most), out, from);
    yield;
  }
  return out;
}

/**
 * Resize with a Lanczos kernel of three lobes, stretched when shrinking so that nothing aliases; pauses between bands.
 * Any channels; sharp, and may overshoot near hard edges (Duchon 1979).
 */
export function* resizingLanczos(raster: Raster, width: number, height: number, edges: Edges): Steps<Raster> {
  if (width === raster.width && height === raster.height) return raster;
  const taps = (from: number, to: number) => lanczosTaps(from / to / 2 - 0.5, from / to, to, from / to);
  return yield* separable(raster, taps(raster.width, width), taps(raster.height, height), edges);
}

/** `resizingLanczos` in one go. */
export const resizeLanczos = (raster: Raster, width: number, height: number, edges: Edges): Raster =>
  runToEnd(resizingLanczos(raster, width, height, edges));

/** An upright grid of samples: the first one, the step between them, how many. */
export interface UprightGrid {
  originX: number;
  originY: number;
  stepX: number;
  stepY: number;
  width: number;
  height: number;
}

/**
 * Lanczos resampling (three lobes, stretched by `stretch` ≥ 1) on an upright grid, separable, into rows of `out` from `top` on.
 * `checkpoint` is awaited between bands.
 */
export async function resampleUpright(
  raster: Raster,
  grid: UprightGrid,
  stretch: number,
  edges: Edges,
  checkpoint: (done: number) => Promise<void>,
  out: Raster,
  top: number,
): Promise<void> {
  const plan = planOf(
    raster,
    lanczosTaps(grid.originX, grid.stepX, grid.width, stretch),
    lanczosTaps(grid.originY, grid.stepY, grid.height, stretch),
    edges,
  );
  for (let from = 0; from < grid.height; from += plan.most) {
    await checkpoint(from / grid.height);
    resizeRows(raster, plan, from, Math.min(grid.height, from + plan.most), out, top + from);
  }
}

/**
 * Resize by the mean over the area each new pixel covers: no overshoot, the mean is kept exactly. Pauses between bands.
 */
export function* resizingArea(raster: Raster, width: number, height: number): Steps<Raster> {
  if (width === raster.width && height === raster.height) return raster;
  const [across, down] = [areaTaps(raster.width, width), areaTaps(raster.height, height)];
  return yield* separable(raster, across, down, MIRROR);
}

/** `resizingArea` in one go. */
export const resizeArea = (raster: Raster, width: number, height: number): Raster =>
  runToEnd(resizingArea(raster, width, height));
