import { blurring } from '../../filters/gaussian.ts';
import { PLANES } from '../../memory/pool.ts';
import { summing } from '../../planes/summing.ts';
import type { Edges } from '../../raster/edges.ts';
import { Raster } from '../../raster/raster.ts';
import type { Sides } from '../../raster/sides.ts';
import { resizingLanczos } from '../../sampling/resize.ts';
import { runSteps } from '../../work/steps.ts';
import { BAND_COUNT, bandSigma } from './bands.ts';

/** Blurred so far (σ in pixels), half as many pixels hold all that is left, with room for the filters that go on from there. */
const HALVED_SIGMA = 14;

/** What becomes of a band before it is added, and how much of it is. */
export interface BandShare {
  weight: number;
  clean(band: Float32Array): Float32Array;
}

/**
 * The weighted sum of `detailBands`, without ever holding all of them: broad bands are made at half the size and less, as soon
 * as nothing is lost by that (Burt & Adelson 1983), and brought up together. The plane is written over.
 */
export async function bandSum(
  plane: Float32Array,
  sides: Sides,
  edges: Edges,
  checkpoint: (done: number) => Promise<void>,
  shares: readonly BandShare[],
): Promise<Float32Array> {
  const resized = async (plane: Float32Array, from: Sides, to: Sides): Promise<Float32Array> => {
    const whole = new Raster(from.width, from.height, [plane]);
    return (await runSteps(resizingLanczos(whole, to.width, to.height, edges), checkpoint)).planes[0];
  };
  /** The sum from a level on, of a plane whose σ in its own pixels is `reached`; the plane is written over. */
  const sumFrom = async (
    finer: Float32Array,
    { width, height }: Sides,
    level: number,
    reached: number,
  ): Promise<Float32Array> => {
    await checkpoint(level / BAND_COUNT);
    if (reached >= HALVED_SIGMA && width % 2 === 0 && height % 2 === 0) {
      const half = { width: width / 2, height: height / 2 };
      const less = await resized(finer, { width, height }, half);
      PLANES.give(finer);
      const small = await sumFrom(less, half, level, reached / 2);
      await checkpoint(level / BAND_COUNT);
      const out = await resized(small, half, { width, height });
      PLANES.give(small);
      return out;
    }
    const sigma = bandSigma(level) * Math.max(width, height);
    const step = Math.sqrt(sigma * sigma - reached * reached);
    const coarser = await runSteps(blurring(finer, width, height, step, edges), checkpoint);
    await checkpoint(level / BAND_COUNT);
    const own = await runSteps(summing([finer, coarser], [1, -1], {}, finer), checkpoint);
    const band = shares[level].clean(own);
    await checkpoint(level / BAND_COUNT);
    const { weight } = shares[level];
    if (level + 1 === BAND_COUNT) {
      PLANES.give(coarser);
      return runSteps(summing([band], [weight], {}, band), checkpoint);
    }
    const rest = await sumFrom(coarser, { width, height }, level + 1, sigma);
    const sum = await runSteps(summing([rest, band], [1, weight], {}, rest), checkpoint);
    PLANES.give(band);
    return sum;
  };
  return sumFrom(plane, sides, 0, 0);
}
