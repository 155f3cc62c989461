import { nearestMarked } from '../../../filters/distance.ts';
import { blurring } from '../../../filters/gaussian.ts';
import { PLANES } from '../../../memory/pool.ts';
import { mapped } from '../../../planes/mapped.ts';
import type { Edges } from '../../../raster/edges.ts';
import type { Sides } from '../../../raster/sides.ts';
import type { Steps } from '../../../work/steps.ts';

/** How far the tone of joints and of faces about a place is gathered, σ as a share of the longer edge. */
export const AROUND = 0.03;
/** Of the difference between both, where the border is. */
const HALF = 0.5;
/** Below this difference of tone (encoded) the net itself is the joint. */
const LEAST_CONTRAST = 0.02;
/** What counts as near the net, σ in pixels, and below which share of it about a place that is off it. */
const NEAR = 2;
const OFF = 0.02;
/** Rounds off the steps of whole pixels, σ in pixels. */
const SMOOTH = 0.8;
/** Below this share of the weights about a place its mean is not trusted. */
export const LEAST_WEIGHT = 1e-4;

/** Where joints end. */
export interface Border {
  /** From the border to each place, in pixels: above 0 on faces, below 0 in joints. */
  away: Float32Array;
  /** Width of the joints as they are found, in pixels. */
  width: number;
}

/** Mean of a plane about each place, of where the weights are. */
function* meanAbout(
  plane: Float32Array,
  weights: Float32Array,
  { width, height }: Sides,
  sigma: number,
  edges: Edges,
): Steps<Float32Array> {
  const product = mapped(plane, (value, i) => value * weights[i]);
  const sum = yield* blurring(product, width, height, sigma, edges);
  const total = yield* blurring(weights, width, height, sigma, edges);
  for (let i = 0; i < sum.length; i++) sum[i] /= Math.max(LEAST_WEIGHT, total[i]);
  PLANES.give(total);
  return sum;
}

/**
 * Where the joints of a net end: at the half of the way from the tone of the joint to that of the faces beside it, within the net,
 * which is broader than a thin joint. `grey` is encoded, one value a pixel; `net` is 1 on the net; where `isAdded` is 1 the net itself is the joint.
 */
export function* findBorder(
  grey: Float32Array,
  net: Uint8Array,
  isAdded: Uint8Array,
  sides: Sides,
  edges: Edges,
): Steps<Border> {
  const sigma = AROUND * Math.max(sides.width, sides.height);
  // The middle of the net is joint for certain, and what lies off it is face.
  const near = yield* blurring(Float32Array.from(net), sides.width, sides.height, NEAR, edges);
  const inNet = mapped(near, (share, i) => (net[i] === 1 ? share * share * share : 0));
  const offNet = mapped(near, (share) => (share < OFF ? 1 : 0));
  PLANES.give(near);
  const joints = yield* meanAbout(grey, inNet, sides, sigma, edges);
  const faces = yield* meanAbout(grey, offNet, sides, sigma, edges);
  const mask = new Uint8Array(net.length);
  for (let i = 0; i < mask.length; i++) {
    if (net[i] === 0) continue;
    const contrast = faces[i] - joints[i];
    const isJoint = (faces[i] - grey[i]) / contrast > HALF;
    mask[i] = isAdded[i] === 1 || Math.abs(contrast) < LEAST_CONTRAST || isJoint ? 1 : 0;
  }
  PLANES.give(joints, faces);
  const inverse = mask.map((value) => 1 - value);
  const outside = yield* nearestMarked(mask, sides, edges);
  const inside = yield* nearestMarked(inverse, sides, edges);
  let [count, sum] = [0, 0];
  const away = outside.distance;
  for (let i = 0; i < away.length; i++) {
    if (mask[i] === 0) {
      away[i] = Math.min(away[i], sides.width + sides.height) - 0.5;
      continue;
    }
    const deep = Math.min(inside.distance[i], sides.width + sides.height) - 0.5;
    away[i] = -deep;
    count++;
    sum += deep;
  }
  const soft = yield* blurring(away, sides.width, sides.height, SMOOTH, edges);
  // Over a band of a width, the mean distance to its border is a quarter of it.
  return { away: soft, width: count > 0 ? (4 * sum) / count : 0 };
}
