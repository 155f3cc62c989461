import { leastSquares } from '../../algebra/least-squares.ts';
import type { Raster } from '../../raster/raster.ts';
import { median, statistics } from '../../statistics/statistics.ts';
import type { Steps } from '../../work/steps.ts';

/** The light of one channel: log light = Σ cₖ·(1, u, v, u², uv, v²) over crop coordinates −1..1. */
export type LightField = number[];

const BLOCKS = 48;
const ROUNDS = 5;
export const LOG_FLOOR = 0.01;
const TUKEY = 2.5 * 1.4826;

/** The six terms of the polynomial at crop coordinates (u, v). */
export const terms = (u: number, v: number): number[] => [1, u, v, u * u, u * v, v * v];

/** Log light at (u, v) less its mean over the crop. */
export function logLight(field: LightField, u: number, v: number): number {
  // Over −1..1 the means of u² and v² are 1/3, of the odd terms 0.
  const [, a, b, c, d, e] = field;
  return a * u + b * v + c * (u * u - 1 / 3) + d * u * v + e * (v * v - 1 / 3);
}

/** Where the crop lies in a picture with margins, all in pixels. */
export interface CropBox {
  left: number;
  top: number;
  width: number;
  height: number;
}

/** Blocks of a picture: their means in log, and where they lie in the crop (−1…1). */
export interface Blocks {
  across: number;
  values: number[];
  places: [number, number][];
}

/** A block with less than this share free to be looked at tells nothing. */
const LEAST_FREE = 0.3;

/**
 * Log means of 48 × 48 blocks of one plane, of what `leave` leaves free; not a number where that is too little.
 */
export function blocksOf(
  plane: Float32Array,
  width: number,
  height: number,
  box: CropBox,
  leave: Float32Array | null = null,
): Blocks {
  const values: number[] = [];
  const places: [number, number][] = [];
  for (let j = 0; j < BLOCKS; j++) {
    const y0 = Math.floor((j * height) / BLOCKS);
    const y1 = Math.max(y0 + 1, Math.floor(((j + 1) * height) / BLOCKS));
    for (let i = 0; i < BLOCKS; i++) {
      const x0 = Math.floor((i * width) / BLOCKS);
      const x1 = Math.max(x0 + 1, Math.floor(((i + 1) * width) / BLOCKS));
      let sum = 0;
      let free = 0;
      for (let y = y0; y < y1; y++) {
        for (let x = x0; x < x1; x++) {
          const share = leave ? 1 - leave[y * width + x] : 1;
          sum += share * plane[y * width + x];
          free += share;
        }
      }
      const isFree = free >= LEAST_FREE * (x1 - x0) * (y1 - y0);
      values.push(isFree ? Math.log(sum / free + LOG_FLOOR) : Number.NaN);
      places.push([
        (2 * ((x0 + x1) / 2 - box.left)) / box.width - 1,
        (2 * ((y0 + y1) / 2 - box.top)) / box.height - 1,
      ]);
    }
  }
  return { across: BLOCKS, values, places };
}

/** Least squares with Tukey's bisquare; also the share of rows that were left out in the end. */
function* robust(rows: number[][], values: number[]): Steps<{ field: LightField; rejected: number }> {
  let weights = rows.map(() => 1);
  let field = leastSquares(rows, values, weights);
  for (let round = 0; round < ROUNDS; round++) {
    yield;
    const misses = rows.map((row, k) => values[k] - row.reduce((sum, a, n) => sum + a * field[n], 0));
    const scale = TUKEY * median(misses.map(Math.abs)) + 1e-6;
    weights = misses.map((miss) => (Math.abs(miss) < scale ? (1 - (miss / scale) ** 2) ** 2 : 0));
    field = leastSquares(rows, values, weights);
  }
  return { field, rejected: weights.filter((w) => w === 0).length / weights.length };
}

/** Between which two blocks, this many apart, differences are taken. */
const BASELINE = 4;

/** The light by the differences of blocks a little apart: the step between two tones is an outlier among them. */
function* fitDifferences({ across, values, places }: Blocks): Steps<LightField> {
  const rows: number[][] = [];
  const steps: number[] = [];
  const add = (from: number, to: number) => {
    if (Number.isNaN(values[from] + values[to])) return;
    const a = terms(...places[from]);
    rows.push(terms(...places[to]).map((value, n) => value - a[n]));
    steps.push(values[to] - values[from]);
  };
  for (let j = 0; j < across; j++) {
    for (let i = 0; i < across; i++) {
      const k = j * across + i;
      if (i + BASELINE < across) add(k, k + BASELINE);
      if (j + BASELINE < across) add(k, k + BASELINE * across);
    }
  }
  return (yield* robust(rows, steps)).field;
}

/** Share of the spread of values that two groups explain (Otsu 1979): 1 is two sharp tones, a slope has 0.75. */
function separation(values: number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const n = sorted.length;
  const total = sorted.reduce((sum, v) => sum + v, 0);
  const centre = total / n;
  const spread = sorted.reduce((sum, v) => sum + (v - centre) ** 2, 0);
  if (spread < 1e-9 * n) return 0;
  let below = 0;
  let best = 0;
  for (let k = 1; k < n; k++) {
    below += sorted[k - 1];
    const [low, high] = [below / k, (total - below) / (n - k)];
    best = Math.max(best, (k * (n - k) * (high - low) ** 2) / n);
  }
  return best / spread;
}

const TWO_TONED = 0.86;
const REJECTED = 0.3;
/** Tones nearer than this, in log, are one. */
const APART = 0.15;

const FEWEST_BLOCKS = 60;

export interface FoundLight {
  fields: LightField[];
  /** The surface has two tones, which a plain fit would take for light. */
  twoToned: boolean;
}

/**
 * Broad light of each channel: robust polynomial of order 2 through the logs of 48 × 48 block means,
 * reweighted by Tukey's bisquare (Beaton & Tukey 1974), so that a stain does not bend it. A surface of two
 * tones is identified by what is left and fitted by differences of near blocks instead. Linear input; the log is
 * of v + 0.01. What `leave` covers (0..1 a pixel) is not looked at.
 */
export function* fitLight(
  picture: Raster,
  box: CropBox,
  leave: Float32Array | null = null,
): Steps<FoundLight> {
  const { width, height } = picture;
  const blocks: Blocks[] = [];
  for (const plane of picture.planes) {
    blocks.push(blocksOf(plane, width, height, box, leave));
    yield;
  }
  const free = blocks[0].values.map((value) => !Number.isNaN(value));
  // With less than that there is no light to be told.
  if (free.filter(Boolean).length < FEWEST_BLOCKS) {
    return { fields: blocks.map(() => [0, 0, 0, 0, 0, 0]), twoToned: false };
  }
  const fits: { field: LightField; rejected: number }[] = [];
  const byDifferences: LightField[] = [];
  for (const one of blocks) {
    const rows = one.places.filter((_, k) => free[k]).map(([u, v]) => terms(u, v));
    fits.push(
      yield* robust(
        rows,
        one.values.filter((_, k) => free[k]),
      ),
    );
    byDifferences.push(yield* fitDifferences(one));
  }
  // Told on what the differences leave: a plain fit bends itself through both tones.
  const twoToned = blocks.some(({ values, places }, c) => {
    const left = values
      .map((value, k) => value - logLight(byDifferences[c], ...places[k]))
      .filter((_, k) => free[k]);
    return (
      statistics(Float32Array.from(left)).deviation > APART &&
      (separation(left) > TWO_TONED || fits[c].rejected > REJECTED)
    );
  });
  return { fields: twoToned ? byDifferences : fits.map(({ field }) => field), twoToned };
}
