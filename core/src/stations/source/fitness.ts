import { blurring } from '../../filters/gaussian.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import { PLANES } from '../../memory/pool.ts';
import { luminance } from '../../planes/luminance.ts';
import { MIRROR } from '../../raster/edges.ts';
import { Raster } from '../../raster/raster.ts';
import { resizeArea, resizingArea } from '../../sampling/resize.ts';
import { findingPercentiles } from '../../statistics/histogram.ts';
import { inParts, type Steps } from '../../work/steps.ts';
import { drift } from '../even/drift.ts';
import { measuringSeams } from '../join/seam.ts';
import { mainDirection } from '../square/direction.ts';
import type { SourceOutput } from './output.ts';

/** What a photo offers. Shares are 0..1. */
export interface Fitness {
  /** Pixels of the original's shorter side. */
  shortEdge: number;
  /** Largest offered tile size the photo fills. */
  fittingSize: number;
  /** Broad change of light over the photo, see `drift`. */
  unevenness: number;
  /** Share of pixels with a channel at full, and with all channels at zero. */
  burnt: number;
  black: number;
  /** How much of the detail of two pixels there is at one pixel: 1 crisp, below about 0.35 soft. */
  sharpness: number;
  /** Deviation of the finest grain, as a share of the range of sRGB values. */
  noise: number;
  /** Turn of the main direction of lines, degrees clockwise; null where none rules. */
  tilt: number | null;
  /** Strongest seam figure of the raw picture repeated; 1 or less and it may tile already. */
  seam: number;
}

/** Below this sharpness the finest pixels contain no detail. */
export const SOFT = 0.35;
const FULL = 0.999;
const MEASURED = 512;
const DIRECTION_SIZE = 256;
const PLAIN = 2;
/** Median absolute deviation of a normal distribution of deviation 1. */
const MAD = 0.6745;

function smaller(plane: Float32Array, width: number, height: number, most: number): Raster {
  const scale = Math.min(1, most / Math.max(width, height));
  return resizeArea(
    new Raster(width, height, [plane]),
    Math.max(8, Math.round(width * scale)),
    Math.max(8, Math.round(height * scale)),
  );
}

/** The middle of a picture, at the size in which it lies: where fine detail is measured. */
function middle({ width, height, planes }: Raster): Raster {
  const [w, h] = [Math.min(width, MEASURED), Math.min(height, MEASURED)];
  return new Raster(width, height, planes).cut((width - w) >> 1, (height - h) >> 1, w, h);
}

/** Diagonal details of 2 × 2 blocks. */
function diagonals(plane: Float32Array, width: number, height: number): Float32Array {
  const details = new Float32Array((width >> 1) * (height >> 1));
  let k = 0;
  for (let y = 0; y + 1 < height; y += 2) {
    for (let x = 0; x + 1 < width; x += 2) {
      const i = y * width + x;
      details[k++] = Math.abs(plane[i] - plane[i + 1] - plane[i + width] + plane[i + width + 1]) / 2;
    }
  }
  return details;
}

/** Noise by the diagonal details of 2 × 2 blocks, whose median structure hardly moves (Donoho & Johnstone 1994). */
function* noiseOf(plane: Float32Array, width: number, height: number): Steps<number> {
  const details = diagonals(plane, width, height);
  yield;
  return (yield* findingPercentiles(details, [50]))[0] / MAD;
}

/** Root of the summed squares of what two planes differ by. */
function distance(a: Float32Array, b: Float32Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += (a[i] - b[i]) ** 2;
  return Math.sqrt(sum);
}

/** A spread of luminance below which a picture is one colour. */
const UNIFORM = 1e-6;

function* sharpnessOf(plane: Float32Array, width: number, height: number): Steps<number> {
  function* power(sigma: number): Steps<number> {
    const soft = yield* blurring(plane, width, height, sigma, MIRROR);
    const strength = distance(plane, soft);
    PLANES.give(soft);
    yield;
    return strength;
  }
  const coarse = yield* power(2);
  // What is one colour has nothing that could be soft.
  if (coarse < UNIFORM * Math.sqrt(plane.length)) return 1;
  return (yield* power(0.8)) / coarse;
}

/** How many pixels are clipped or black. */
function lostIn([r, g, b]: Float32Array[]): { burnt: number; black: number } {
  let [burnt, black] = [0, 0];
  for (let i = 0; i < r.length; i++) {
    if (r[i] >= FULL || g[i] >= FULL || b[i] >= FULL) burnt++;
    else if (r[i] + g[i] + b[i] <= 0) black++;
  }
  return { burnt, black };
}

/** Measures the fitness of a linearised photo. */
export function* fitness(source: SourceOutput): Steps<Fitness> {
  const { picture } = source;
  const { width, height } = picture;
  const { planes } = picture;
  const { length } = planes[0];
  let [burnt, black] = [0, 0];
  yield* inParts(length, (from, to) => {
    const lost = lostIn(planes.map((plane) => plane.subarray(from, to)));
    burnt += lost.burnt;
    black += lost.black;
  });
  const shortEdge = Math.min(source.originalWidth, source.originalHeight);
  yield;
  const y = luminance(picture);
  yield;
  const inner = middle(new Raster(width, height, [y]));
  yield;
  const seen = KERNELS.encodeSrgbPlane(inner.planes[0]);
  yield;
  const small = smaller(y, width, height, DIRECTION_SIZE);
  const direction = yield* mainDirection(small.planes[0], small.width, small.height);
  const whole = yield* resizingArea(picture, Math.min(width, MEASURED), Math.min(height, MEASURED));
  yield;
  const seams = yield* measuringSeams(whole);
  yield;
  const { rms: unevenness } = yield* drift(y, width, height);
  yield;
  const sharpness = yield* sharpnessOf(seen, inner.width, inner.height);
  yield;
  return {
    shortEdge,
    fittingSize: Math.max(256, 2 ** Math.floor(Math.log2(shortEdge))),
    unevenness,
    burnt: burnt / length,
    black: black / length,
    sharpness,
    noise: yield* noiseOf(seen, inner.width, inner.height),
    tilt: direction.plain >= PLAIN ? direction.degrees : null,
    seam: Math.max(seams.seamX, seams.seamY),
  };
}
