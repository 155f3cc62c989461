import { blurring } from '../../filters/gaussian.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import { PLANES } from '../../memory/pool.ts';
import type { Edges } from '../../raster/edges.ts';
import type { Sides } from '../../raster/sides.ts';
import { task } from '../../team/task.ts';
import type { Checkpoint } from '../../work/checkpoint.ts';
import { runSteps } from '../../work/steps.ts';

/** The finest blur (σ) as a share of the shorter edge; each is wider by `STEP` than the one before. */
export const FINEST = 1 / 64;
export const BANDS = 7;
export const STEP = Math.SQRT2;
/** A log contrast this small is never seen. */
const BASE = 0.001;

/** In each band of a plane how far every pixel stands out: |difference of Gaussians| over the band's median. */
export const bandStrengths = task(
  'bandStrengths',
  async (
    checkpoint: Checkpoint,
    plane: Float32Array,
    { width, height }: Sides,
    edges: Edges,
    weight: number,
  ): Promise<Float32Array[]> => {
    const short = Math.min(width, height);
    const out: Float32Array[] = [];
    const blurred = (sigma: number) => runSteps(blurring(plane, width, height, sigma, edges), checkpoint);
    let finer = await blurred(FINEST * short);
    for (let k = 0; k < BANDS; k++) {
      const coarser = await blurred(FINEST * short * STEP ** (k + 1));
      out.push(KERNELS.standOut(finer, coarser, weight, BASE));
      PLANES.give(finer);
      finer = coarser;
      await checkpoint((k + 1) / BANDS);
    }
    PLANES.give(finer);
    return out;
  },
);
