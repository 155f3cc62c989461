import { blurring } from '../../filters/gaussian.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import { PLANES } from '../../memory/pool.ts';
import type { Edges } from '../../raster/edges.ts';
import type { Sides } from '../../raster/sides.ts';
import { type Statistics, statistics } from '../../statistics/statistics.ts';
import type { Steps } from '../../work/steps.ts';

/** What speaks for bright (above 0) or dark (below 0) standing out, −1…1 each, and both together. */
export interface PolarityEvidence {
  /** By the shading under slanting light: how tone goes with the height that shading tells. */
  shading: number;
  /** By the thin dark lines of joints and cracks, which lie low, against thin bright ones. */
  joints: number;
  together: number;
}

/** So much each of them is worth. */
const TRUST = 0.6;
/** Sigma of what counts as around a thin line, as a share of the longer edge. */
const AROUND = 1 / 40;
const CLEAR_LIGHT = 0.25;
/** A line that rules more than this is a grain of the surface, not light. */
export const GRAINY = 0.35;

/** Third standardised moment of a plane; 0 where it is flat. */
function skewnessOf(plane: Float32Array, { mean, deviation }: Statistics): number {
  let cubes = 0;
  for (let i = 0; i < plane.length; i++) {
    const off = plane[i] - mean;
    cubes += off * off * off;
  }
  return deviation > 1e-4 ? cubes / plane.length / deviation ** 3 : 0;
}

function correlationOf(a: Float32Array, ofA: Statistics, b: Float32Array, ofB: Statistics): number {
  let product = 0;
  for (let i = 0; i < a.length; i++) product += (a[i] - ofA.mean) * (b[i] - ofB.mean);
  return product / a.length / Math.max(1e-9, ofA.deviation * ofB.deviation);
}

/**
 * Evidence of whether bright or dark parts stand out. `log` is the logarithm of luminance, `slant` the height by the
 * shading of slanting light or null, `plain` how plainly light falls from one side (0…1). Joints: skewness of log
 * luminance against its surroundings, dark tails speaking for low joints.
 */
export function* polarityEvidence(
  log: Float32Array,
  slant: Float32Array | null,
  plain: number,
  { width, height }: Sides,
  edges: Edges,
): Steps<PolarityEvidence> {
  const around = yield* blurring(log, width, height, Math.max(width, height) * AROUND, edges);
  yield;
  const local = KERNELS.sumPlanes([log, around], [1, -1], {}, around);
  const own = statistics(local);
  const joints = Math.tanh(-skewnessOf(local, own));
  yield;
  let shading = 0;
  if (slant) {
    const correlation = correlationOf(local, own, slant, statistics(slant));
    shading = Math.tanh(3 * correlation) * (plain > GRAINY ? 0 : Math.min(1, plain / CLEAR_LIGHT));
  }
  PLANES.give(local);
  // Neither is proof: shadow lies along raised joints too, and from which end light comes is a guess.
  return { shading, joints, together: Math.tanh(TRUST * (joints + shading)) };
}
