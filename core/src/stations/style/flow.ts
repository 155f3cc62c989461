import { blurPlanes } from '../../filters/blur-planes.ts';
import type { Field } from '../../filters/gaussian.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import { PLANES } from '../../memory/pool.ts';
import { type Band, bandParts } from '../../raster/band.ts';
import type { Sharing } from '../../team/context.ts';
import { eachBand } from '../../team/in-bands.ts';
import { task } from '../../team/task.ts';

/** Weights of the squared slopes of L, a and b in the structure tensor: colour counts more than its small numbers say. */
const WEIGHTS = [1, 2.25, 2.25];
/** Rows between two pauses. */
const ROWS = 64;

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

/** Products of the slopes of rows of a plane, times a weight, added to the planes of a tensor. */
export const tensorBand = task(
  'tensorBand',
  async (
    checkpoint,
    plane: Float32Array,
    weight: number,
    field: Field,
    into: Tensor,
    band: Band,
  ): Promise<void> => {
    for (const rows of bandParts(band, ROWS)) {
      const made = KERNELS.structureTensor([plane], [weight], field, rows);
      const first = rows.from * field.width;
      for (const [k, sums] of [into.xx, into.xy, into.yy].entries()) {
        for (let i = 0; i < made[k].length; i++) sums[first + i] += made[k][i];
      }
      PLANES.give(...made);
      await checkpoint((rows.to - band.from) / (band.to - band.from));
    }
  },
);

/**
 * Structure tensor of OKLab planes (Di Zenzo 1986; Weickert 1998). `inner` is the σ by which the picture is smoothed before its
 * slopes are taken, `outer` that by which their products are averaged, both in pixels.
 */
export async function structureTensor(
  lab: readonly Float32Array[],
  { width, height, edges }: Field,
  inner: number,
  outer: number,
  context: Sharing,
): Promise<Tensor> {
  const { team } = context;
  const field = { width, height, edges };
  const zeros = () => team.take(width * height).fill(0);
  const products: Tensor = { xx: zeros(), xy: zeros(), yy: zeros() };
  for (const [c, weight] of WEIGHTS.entries()) {
    const [smooth] = await blurPlanes([{ plane: lab[c], sigma: inner }], field, context);
    await eachBand(tensorBand, [smooth, weight, field, products], height, context);
    team.give(smooth);
  }
  const tensor = await averaged(products, field, outer, context);
  team.give(products.xx, products.xy, products.yy);
  return tensor;
}

/** A tensor averaged further. `sigma` in pixels. */
export async function averaged(
  tensor: Tensor,
  field: Field,
  sigma: number,
  context: Sharing,
): Promise<Tensor> {
  const blurs = [tensor.xx, tensor.xy, tensor.yy].map((plane) => ({ plane, sigma }));
  const [xx, xy, yy] = await blurPlanes(blurs, field, context);
  return { xx, xy, yy };
}

/**
 * Unit vectors along the shapes that a tensor tells of (its eigenvector of least change), with a weak wish where it tells
 * little; for the places from one to another, x and y one after the other.
 */
export function flowOf({ xx, xy, yy }: Tensor, wish: Wish | null, from: number, to: number): Float32Array {
  const out = PLANES.take(2 * (to - from));
  for (let i = from, at = 0; i < to; i++, at += 2) {
    let e = xx[i];
    let f = xy[i];
    let g = yy[i];
    if (wish) {
      const wx = wish.x[i];
      const wy = wish.y[i];
      e += wish.weight * wy * wy;
      f -= wish.weight * wx * wy;
      g += wish.weight * wx * wx;
    }
    const d = Math.sqrt((e - g) * (e - g) + 4 * f * f);
    // Of the two forms of the eigenvector the longer one is sure.
    const tx = e >= g ? 2 * f : e - g - d;
    const ty = e >= g ? g - e - d : 2 * f;
    const length = Math.sqrt(tx * tx + ty * ty);
    const isSure = length >= 1e-12;
    out[at] = isSure ? tx / length : 0;
    out[at + 1] = isSure ? ty / length : 1;
  }
  return out;
}

/** The flow of rows, into pixels that all of a team see. */
export const flowBand = task(
  'flowBand',
  async (checkpoint, tensor: Tensor, width: number, into: Float32Array, band: Band): Promise<void> => {
    for (const { from, to } of bandParts(band, ROWS)) {
      const made = flowOf(tensor, null, from * width, to * width);
      into.set(made, 2 * from * width);
      PLANES.give(made);
      await checkpoint((to - band.from) / (band.to - band.from));
    }
  },
);
