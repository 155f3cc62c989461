import { drawn } from '../../lattice/draw.ts';
import { cellOf, type Lattice } from '../../lattice/lattice.ts';

const DIRECTIONS = 256;
export const COS = Float64Array.from({ length: DIRECTIONS }, (_, k) =>
  Math.cos((2 * Math.PI * k) / DIRECTIONS),
);
export const SIN = Float64Array.from({ length: DIRECTIONS }, (_, k) =>
  Math.sin((2 * Math.PI * k) / DIRECTIONS),
);

const fade = (t: number) => t * t * t * (t * (6 * t - 15) + 10);

/**
 * Gradient noise −1..1 on a lattice that wraps (Perlin 2002, gradients of 256 directions), at places in cells times `times`, into
 * the start of `out`. The cell that the last place was in is remembered, as neighbours come one after the other.
 */
export function gradientNoise(
  lattice: Lattice,
  seed: number,
  xs: Float64Array,
  ys: Float64Array,
  times: number,
  out: Float64Array,
): void {
  const slopes = new Float64Array(8);
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
      for (let corner = 0; corner < 4; corner++) {
        const direction = drawn(cellOf(lattice, x0 + (corner & 1), y0 + (corner >> 1)), seed) % DIRECTIONS;
        slopes[2 * corner] = COS[direction];
        slopes[2 * corner + 1] = SIN[direction];
      }
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
    // Brings what unit gradients reach in two dimensions to −1..1.
    out[k] = Math.SQRT2 * (above + fade(dy) * (below - above));
  }
}

export const reference = { gradientNoise };
