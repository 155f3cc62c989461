import { blurring } from '../../filters/gaussian.ts';
import { PLANES } from '../../memory/pool.ts';
import type { Edges } from '../../raster/edges.ts';
import { gradient } from '../../raster/gradient.ts';
import type { Sides } from '../../raster/sides.ts';
import type { Steps } from '../../work/steps.ts';

/** Weights of L, a and b in the structure tensor: colour counts more than its small numbers say. */
const WEIGHTS = [1, 1.5, 1.5];

/** The structure tensor of a picture: products of slopes, averaged. */
export interface Tensor {
  xx: Float32Array;
  xy: Float32Array;
  yy: Float32Array;
}

/** Unit vectors along the shapes of a picture; their sense does not matter. */
export interface Flow {
  x: Float32Array;
  y: Float32Array;
}

/** A weak wish for a direction: unit vectors, and how strong the wish is beside the tensor. */
export interface Wish extends Flow {
  weight: number;
}

/**
 * Structure tensor of OKLab planes (Di Zenzo 1986; Weickert 1998). `inner` is the σ by which the picture is smoothed before its
 * slopes are taken, `outer` that by which their products are averaged, both in pixels.
 */
export function* structureTensor(
  lab: readonly Float32Array[],
  { width, height }: Sides,
  edges: Edges,
  inner: number,
  outer: number,
): Steps<Tensor> {
  const count = width * height;
  const sums = [PLANES.take(count).fill(0), PLANES.take(count).fill(0), PLANES.take(count).fill(0)];
  for (const [c, plane] of lab.slice(0, 3).entries()) {
    const smooth = yield* blurring(plane, width, height, inner, edges);
    const { gx, gy } = gradient(smooth, width, height, 'scharr', edges);
    yield;
    const weight = WEIGHTS[c] * WEIGHTS[c];
    for (let i = 0; i < count; i++) {
      sums[0][i] += weight * gx[i] * gx[i];
      sums[1][i] += weight * gx[i] * gy[i];
      sums[2][i] += weight * gy[i] * gy[i];
    }
    PLANES.give(smooth);
    yield;
  }
  return yield* averaged({ xx: sums[0], xy: sums[1], yy: sums[2] }, { width, height }, edges, outer);
}

/** A tensor averaged further. `sigma` in pixels. */
export function* averaged(
  { xx, xy, yy }: Tensor,
  { width, height }: Sides,
  edges: Edges,
  sigma: number,
): Steps<Tensor> {
  return {
    xx: yield* blurring(xx, width, height, sigma, edges),
    xy: yield* blurring(xy, width, height, sigma, edges),
    yy: yield* blurring(yy, width, height, sigma, edges),
  };
}

/** Unit vectors along the shapes that a tensor tells of (its eigenvector of least change), with a weak wish where it tells little. */
export function* flowOf({ xx, xy, yy }: Tensor, wish: Wish | null): Steps<Flow> {
  const [x, y] = [PLANES.take(xx.length), PLANES.take(xx.length)];
  for (let i = 0; i < xx.length; i++) {
    let [e, f, g] = [xx[i], xy[i], yy[i]];
    if (wish) {
      const [wx, wy] = [wish.x[i], wish.y[i]];
      e += wish.weight * wy * wy;
      f -= wish.weight * wx * wy;
      g += wish.weight * wx * wx;
    }
    const d = Math.sqrt((e - g) * (e - g) + 4 * f * f);
    // Of the two forms of the eigenvector the longer one is sure.
    const tx = e >= g ? 2 * f : e - g - d;
    const ty = e >= g ? g - e - d : 2 * f;
    const length = Math.sqrt(tx * tx + ty * ty);
    if (length < 1e-12) {
      x[i] = 0;
      y[i] = 1;
    } else {
      x[i] = tx / length;
      y[i] = ty / length;
    }
    if ((i & 0x3ffff) === 0x3ffff) yield;
  }
  return { x, y };
}
