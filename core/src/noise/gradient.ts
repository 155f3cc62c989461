import { drawn } from './draw.ts';
import { cellOf, type Lattice } from './lattice.ts';

const DIRECTIONS = 256;
const COS = Float64Array.from({ length: DIRECTIONS }, (_, k) => Math.cos((2 * Math.PI * k) / DIRECTIONS));
const SIN = Float64Array.from({ length: DIRECTIONS }, (_, k) => Math.sin((2 * Math.PI * k) / DIRECTIONS));

const fade = (t: number) => t * t * t * (t * (6 * t - 15) + 10);

/** Brings what unit gradients reach in two dimensions to −1..1. */
const SCALE = Math.SQRT2;

/**
 * Gradient noise −1..1 on a lattice that wraps (Perlin 2002, gradients of 256 directions). Gives a function of cells across
 * and down, which remembers the cell it was in: neighbours are asked for one after the other.
 */
export function gradientNoise(lattice: Lattice, seed: number): (x: number, y: number) => number {
  let cellX = Number.NaN;
  let cellY = Number.NaN;
  const slopes = new Float64Array(8);
  const enter = (x: number, y: number) => {
    cellX = x;
    cellY = y;
    for (let k = 0; k < 4; k++) {
      const direction = drawn(cellOf(lattice, x + (k & 1), y + (k >> 1)), seed) % DIRECTIONS;
      slopes[2 * k] = COS[direction];
      slopes[2 * k + 1] = SIN[direction];
    }
  };
  return (x, y) => {
    const x0 = Math.floor(x);
    const y0 = Math.floor(y);
    if (x0 !== cellX || y0 !== cellY) enter(x0, y0);
    const dx = x - x0;
    const dy = y - y0;
    const fx = fade(dx);
    const top = slopes[0] * dx + slopes[1] * dy;
    const topRight = slopes[2] * (dx - 1) + slopes[3] * dy;
    const low = slopes[4] * dx + slopes[5] * (dy - 1);
    const lowRight = slopes[6] * (dx - 1) + slopes[7] * (dy - 1);
    const above = top + fx * (topRight - top);
    const below = low + fx * (lowRight - low);
    return SCALE * (above + fade(dy) * (below - above));
  };
}
