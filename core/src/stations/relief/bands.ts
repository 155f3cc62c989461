import { blurring } from '../../filters/gaussian.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import { PLANES } from '../../memory/pool.ts';
import { madeInParts } from '../../planes/made-in-parts.ts';
import { summing } from '../../planes/summing.ts';
import type { Edges } from '../../raster/edges.ts';
import type { Sides } from '../../raster/sides.ts';
import { runSteps, type Steps } from '../../work/steps.ts';

export const BAND_COUNT = 6;
/** σ of the finest band as a share of the tile; each next one is twice as wide. */
const FINEST = 0.9 / 512;
const LOG_FLOOR = 0.01;

/** σ of band `level` (0 finest) as a share of the tile's edge. */
export const bandSigma = (level: number) => FINEST * 2 ** level;

/** Size of what a band holds, in mm: the diameter of a blob it answers to most, 2√2 σ (Lindeberg 1998). */
export const bandMillimetres = (level: number, edgeMetres: number) =>
  2 * Math.SQRT2 * bandSigma(level) * edgeMetres * 1000;

/** Log luminance, as bands are taken from it. */
export const logOf = (luminance: Float32Array): Steps<Float32Array> =>
  madeInParts(luminance.length, (from, to) => KERNELS.logPlane(luminance.subarray(from, to), LOG_FLOOR));

/**
 * Six bands of a plane, fine to broad: differences of Gaussians with σ = 0.9·2ˡ px at 512, scaled with the size. Height by
 * tone is read from those of log luminance (see `logOf`). Each band has one value a pixel; the plane is written over.
 */
export async function detailBands(
  plane: Float32Array,
  { width, height }: Sides,
  edges: Edges,
  checkpoint: (done: number) => Promise<void>,
): Promise<Float32Array[]> {
  let finer = plane;
  let reached = 0;
  const bands: Float32Array[] = [];
  for (let level = 0; level < BAND_COUNT; level++) {
    const sigma = bandSigma(level) * Math.max(width, height);
    // Variances of Gaussians add, so each band is blurred on from the one before.
    const step = Math.sqrt(sigma * sigma - reached * reached);
    const coarser = await runSteps(blurring(finer, width, height, step, edges), checkpoint);
    await checkpoint(level / BAND_COUNT);
    bands.push(await runSteps(summing([finer, coarser], [1, -1], {}, finer), checkpoint));
    finer = coarser;
    reached = sigma;
    await checkpoint((level + 1) / BAND_COUNT);
  }
  PLANES.give(finer);
  return bands;
}

/** Sum of bands, each with its weight. */
export function* weightedSum(
  bands: readonly Float32Array[],
  weights: readonly number[],
): Steps<Float32Array> {
  const taken = bands.flatMap((band, level) =>
    weights[level] === 0 ? [] : [{ band, weight: weights[level] }],
  );
  if (taken.length === 0) return new Float32Array(bands[0].length);
  return yield* summing(
    taken.map(({ band }) => band),
    taken.map(({ weight }) => weight),
  );
}
