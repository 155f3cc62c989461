import { drawn } from './draw.ts';
import { cellOf, type Lattice } from './lattice.ts';

const DIRECTIONS = 256;
const COS = Float64Array.from({ length: DIRECTIONS }, (_, k) => Math.cos((2 * Math.PI * k) / DIRECTIONS));
const SIN = Float64Array.from({ length: DIRECTIONS }, (_, k) => Math.sin((2 * Math.PI * k) / DIRECTIONS));

const fade = (t: number) => t * t * t * (t * (6 * t - 15) + 10);

/** Brings what unit gradients reach in two dimensions to −1..1. */
const SCALE = Math.SQRT2;

/** Gradient noise −1..1 at places along a row, in cells times `times`, into the start of `out`. */
export type GradientRow = (xs: Float64Array, ys: Float64Array, times: number, out: Float64Array) => void;

/**
 * Gradient noise −1..1 on a lattice that wraps (Perlin 2002, gradients of 256 directions). The cell that the last place was in
 * is remembered, as neighbours come one after the other; all is in one loop, since a call for every place costs more than the
 * noise.
 */
export function gradientRow(lattice: Lattice, seed: number): GradientRow {
  const slopes = new Float64Array(8);
  const enter = (x: number, y: number) => {
    for (let k = 0; k < 4; k++) {
      const direction = drawn(cellOf(lattice, x + (k & 1), y + (k >> 1)), seed) % DIRECTIONS;
      slopes[2 * k] = COS[direction];
      slopes[2 * k + 1] = SIN[direction];
    }
  };
  return (xs, ys, times, out) => {
    let cellX = Number.NaN;
    let cellY = Number.NaN;
    for (let k = 0; k < xs.length; k++) {
      const x = times * xs[k];
      const y = times * ys[k];
      const x0 = Math.floor(x);
      const y0 = Math.floor(y);
      if (x0 !== cellX || y0 !== cellY) {
        cellX = x0;
        cellY = y0;
        enter(x0, y0);
      }
      const dx = x - x0;
      const dy = y - y0;
      const fx = fade(dx);
      const top = slopes[0] * dx + slopes[1] * dy;
      const topRight = slopes[2] * (dx - 1) + slopes[3] * dy;
      const low = slopes[4] * dx + slopes[5] * (dy - 1);
      const lowRight = slopes[6] * (dx - 1) + slopes[7] * (dy - 1);
      const above = top + fx * (topRight - top);
      const below = low + fx * (lowRight - low);
      out[k] = SCALE * (above + fade(dy) * (below - above));
    }
  };
}
