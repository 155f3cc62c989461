import { KERNELS } from '../kernels/kernels.ts';
import type { Lattice } from '../lattice/lattice.ts';

/** Gradient noise −1..1 at places along a row, in cells times `times`, into the start of `out`. */
export type GradientRow = (xs: Float64Array, ys: Float64Array, times: number, out: Float64Array) => void;

/** Gradient noise −1..1 on a lattice that wraps (Perlin 2002, gradients of 256 directions). */
export const gradientRow =
  (lattice: Lattice, seed: number): GradientRow =>
  (xs, ys, times, out) =>
    KERNELS.gradientNoise(lattice, seed, xs, ys, times, out);
