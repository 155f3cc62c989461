import { blurring } from '../../filters/gaussian.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import { PLANES } from '../../memory/pool.ts';
import type { Edges } from '../../raster/edges.ts';
import type { Sides } from '../../raster/sides.ts';
import { task } from '../../team/task.ts';
import type { Checkpoint } from '../../work/checkpoint.ts';
import { runSteps } from '../../work/steps.ts';
import { leastVisible, PEAK_RESPONSE, rarityGain } from './visibility.ts';

/** The finest blur (σ) as a share of the shorter edge; each is wider by `STEP` than the one before. */
export const FINEST = 1 / 64;
export const BANDS = 8;
export const STEP = Math.SQRT2;
/** Broader than this, a blob is weighed by how well it is seen on the repeated tile. */
const BROAD = 1 / 24;
/** A log contrast this small is never seen: in lightness, and in colour over a broad blob. */
const BASE = 0.001;
const COLOUR_BASE = 0.0003;

/** Weighs a broad band by what is seen of it: less than the eye notices counts in proportion. */
function weigh(
  band: Float32Array,
  [finer, coarser]: [Float32Array, Float32Array],
  { weight, sigma, isColour }: { weight: number; sigma: number; isColour: boolean },
): void {
  const gain = rarityGain(sigma);
  const full = leastVisible(sigma, isColour) * PEAK_RESPONSE;
  for (let i = 0; i < band.length; i++)
    band[i] *= gain * Math.min(1, Math.abs(weight * (finer[i] - coarser[i])) / full);
}

/**
 * In each band of a plane how far every pixel stands out: |difference of Gaussians| over the band's median; in broad bands
 * weighed by contrast sensitivity and by how few places there are. `isColour` is set for planes without lightness.
 */
export const bandStrengths = task(
  'bandStrengths',
  async (
    checkpoint: Checkpoint,
    plane: Float32Array,
    { width, height }: Sides,
    edges: Edges,
    { weight, isColour }: { weight: number; isColour: boolean },
  ): Promise<Float32Array[]> => {
    const short = Math.min(width, height);
    const out: Float32Array[] = [];
    const blurred = (sigma: number) => runSteps(blurring(plane, width, height, sigma, edges), checkpoint);
    let finer = await blurred(FINEST * short);
    for (let k = 0; k < BANDS; k++) {
      const sigma = FINEST * STEP ** k;
      const coarser = await blurred(sigma * STEP * short);
      const isBroad = sigma > BROAD;
      const band = KERNELS.standOut(finer, coarser, weight, isBroad && isColour ? COLOUR_BASE : BASE);
      if (isBroad) weigh(band, [finer, coarser], { weight, sigma, isColour });
      out.push(band);
      PLANES.give(finer);
      finer = coarser;
      await checkpoint((k + 1) / BANDS);
    }
    PLANES.give(finer);
    return out;
  },
);
