import { blurring } from '../../filters/gaussian.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import type { Edges } from '../../raster/edges.ts';
import { PLANES } from '../../raster/pool.ts';
import type { Checkpoint } from '../../team/tasks.ts';
import type { Sides } from '../../tile/shape.ts';
import { runSteps } from '../../work/steps.ts';

/** The finest blur (σ) as a share of the shorter edge; each is wider by `STEP` than the one before. */
export const FINEST = 1 / 64;
export const BANDS = 7;
export const STEP = Math.SQRT2;
/** A log contrast this small is never seen. */
const BASE = 0.001;

/** In each band of a plane how far every pixel stands out: |difference of Gaussians| over the band's median. */
export async function bandStrengths(
  checkpoint: Checkpoint,
  plane: Float32Array,
  { width, height }: Sides,
  edges: Edges,
  weight: number,
): Promise<Float32Array[]> {
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
}
