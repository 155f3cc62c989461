import { gaussian } from '../../filters/gaussian.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import type { Edges } from '../../raster/edges.ts';
import { PLANES } from '../../raster/pool.ts';
import { Raster } from '../../raster/raster.ts';
import { resizeLanczos } from '../../raster/resize.ts';
import type { Sides } from '../shape.ts';
import { BAND_COUNT, bandSigma, LOG_FLOOR } from './bands.ts';

/** Blurred so far (σ in pixels), half as many pixels hold all that is left, with room for the filters that go on from there. */
const HALVED_SIGMA = 14;

const resized = (plane: Float32Array, from: Sides, { width, height }: Sides, edges: Edges): Float32Array =>
  resizeLanczos(new Raster(from.width, from.height, [plane]), width, height, edges).planes[0];

/** What becomes of a band before it is added, and how much of it is. */
export interface BandShare {
  weight: number;
  clean(band: Float32Array): Float32Array;
}

/**
 * The weighted sum of `detailBands`, without ever holding all of them: broad bands are made at half the size and less, as soon
 * as nothing is lost by that (Burt & Adelson 1983), and brought up together.
 */
export async function bandSum(
  luminance: Float32Array,
  sides: Sides,
  edges: Edges,
  breathe: (done: number) => Promise<void>,
  shares: readonly BandShare[],
): Promise<Float32Array> {
  /** The sum from a level on, of a plane whose σ in its own pixels is `reached`; the plane is written over. */
  const sumFrom = async (
    finer: Float32Array,
    { width, height }: Sides,
    level: number,
    reached: number,
  ): Promise<Float32Array> => {
    await breathe(level / BAND_COUNT);
    if (reached >= HALVED_SIGMA && width % 2 === 0 && height % 2 === 0) {
      const half = { width: width / 2, height: height / 2 };
      const less = resized(finer, { width, height }, half, edges);
      PLANES.give(finer);
      const small = await sumFrom(less, half, level, reached / 2);
      await breathe(level / BAND_COUNT);
      const out = resized(small, half, { width, height }, edges);
      PLANES.give(small);
      return out;
    }
    const sigma = bandSigma(level) * Math.max(width, height);
    const coarser = gaussian(finer, width, height, Math.sqrt(sigma * sigma - reached * reached), edges);
    const band = shares[level].clean(KERNELS.sumPlanes([finer, coarser], [1, -1], {}, finer));
    const { weight } = shares[level];
    if (level + 1 === BAND_COUNT) {
      PLANES.give(coarser);
      return KERNELS.sumPlanes([band], [weight], {}, band);
    }
    const rest = await sumFrom(coarser, { width, height }, level + 1, sigma);
    const sum = KERNELS.sumPlanes([rest, band], [1, weight], {}, rest);
    PLANES.give(band);
    return sum;
  };
  return sumFrom(KERNELS.logPlane(luminance, LOG_FLOOR), sides, 0, 0);
}
