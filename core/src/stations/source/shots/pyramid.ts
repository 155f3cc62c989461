import { gaussian } from '../../../filters/gaussian.ts';
import { MIRROR } from '../../../raster/edges.ts';
import { Raster } from '../../../raster/raster.ts';
import { resizeArea } from '../../../sampling/resize.ts';
import type { Steps } from '../../../work/steps.ts';
import { type Slopes, slopesOf } from './enhanced-correlation.ts';

/** Shorter side of the smallest picture on the way from coarse to fine. */
const COARSEST = 64;
/** Shorter side at which the first shift is looked for. */
const SHIFTED = 256;
/** How far pictures are softened, in pixels of each size. */
export const SOFT = 1;
/** Brightness at which noise begins. */
export const BLACK = 0.004;
/** What is broad light, as a share of the longer edge. */
const FALL_OFF = 0.12;
/** What is broad beside details, in pixels of each size. */
const BROAD = 8;
/** Keeps values above 0, as those that are seen are. */
export const LIFT = 10;

/** A picture without broad light, such as the fall-off of a lamp that is near: about 1 on the whole. */
export function flattened(luminance: Float32Array, width: number, height: number): Float32Array {
  const broad = gaussian(luminance, width, height, FALL_OFF * Math.max(width, height), MIRROR);
  return luminance.map((value, i) => Math.max(0, value) / (broad[i] + BLACK));
}

/** Sizes of a picture from coarse to fine. */
export function* pyramidOf(plane: Float32Array, width: number, height: number): Steps<Slopes[]> {
  const levels: Slopes[] = [];
  let raster = new Raster(width, height, [plane]);
  for (;;) {
    const soft = gaussian(raster.planes[0], raster.width, raster.height, SOFT, MIRROR);
    levels.unshift(slopesOf(soft, raster.width, raster.height));
    yield;
    if (Math.min(raster.width, raster.height) < 2 * COARSEST) return levels;
    raster = resizeArea(raster, raster.width >> 1, raster.height >> 1);
    yield;
  }
}

/** The size at which the first shift is looked for. */
export const nearLevel = (levels: readonly Slopes[]): number =>
  Math.max(
    0,
    levels.findLastIndex(({ width, height }) => Math.min(width, height) <= SHIFTED),
  );

/** What each place of a picture from 0 is like beside its surroundings: the difference of logarithms. */
export function detailOf({ plane, width, height }: Slopes): Float32Array {
  const log = plane.map((value) => Math.log(Math.max(0, value) + BLACK));
  const broad = gaussian(log, width, height, BROAD, MIRROR);
  return log.map((value, i) => value - broad[i]);
}

/** Details smaller than this are noise, by the logarithm. */
const FAINT = 0.02;

/** How strong the edges of a picture from 0 are, by the logarithm: light from opposite sides shows them in the same places. */
export function edgesOf(level: Slopes): Float32Array {
  const { across, down } = slopesOf(detailOf(level), level.width, level.height);
  return across.map((value, i) => Math.log(FAINT + Math.hypot(value, down[i])));
}
