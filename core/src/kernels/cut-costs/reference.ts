import type { Strip } from './strip.ts';

/** Costs of crossing between neighbouring pixels of a strip. */
export interface Costs {
  /** Between (x−1, y) and (x, y), at y·width + x. */
  upright: Float32Array;
  /** Between (x, y−1) and (x, y), at y·width + x; row 0 meets the last row. */
  level: Float32Array;
}

/** What a step counts for at least, so that level surfaces have a cost too. */
export const FLAT = 0.02;
export const LENGTH_COST = 0.002;

/** Square root of linear light: near enough to what the eye sees as equal steps. */
export function seen(plane: Float32Array): Float32Array {
  const out = new Float32Array(plane.length);
  for (let i = 0; i < out.length; i++) out[i] = plane[i] > 0 ? Math.sqrt(plane[i]) : 0;
  return out;
}

/** Colour steps of a copy: from the pixel to the left and from the one above (in the first row, from the last). */
function stepsOf(planes: Float32Array[], width: number, length: number): Costs {
  const upright = new Float32Array(width * length);
  const level = new Float32Array(width * length);
  for (const plane of planes) {
    for (let y = 0; y < length; y++) {
      const row = y * width;
      const above = (y === 0 ? length - 1 : y - 1) * width;
      for (let x = 0; x < width; x++) {
        const value = plane[row + x];
        const across = x > 0 ? value - plane[row + x - 1] : 0;
        const down = value - plane[above + x];
        upright[row + x] += across * across;
        level[row + x] += down * down;
      }
    }
  }
  for (let i = 0; i < upright.length; i++) {
    upright[i] = Math.sqrt(upright[i]);
    level[i] = Math.sqrt(level[i]);
  }
  return { upright, level };
}

/** Colour distance of the two copies. */
function distanceOf(a: Float32Array[], b: Float32Array[]): Float32Array {
  const out = new Float32Array(a[0].length);
  for (let c = 0; c < a.length; c++) {
    const [plane, other] = [a[c], b[c]];
    for (let i = 0; i < out.length; i++) {
      const d = plane[i] - other[i];
      out[i] += d * d;
    }
  }
  for (let i = 0; i < out.length; i++) out[i] = Math.sqrt(out[i]);
  return out;
}

/**
 * Costs of a cut between the two copies of a strip: how far they are apart, for less where both have a step of their own
 * (Kwatra et al. 2003). Linear values are compared as they are seen.
 */
export function cutCosts(strip: Strip): Costs {
  const { width, length } = strip;
  const a = strip.a.map(seen);
  const b = strip.b.map(seen);
  const distance = distanceOf(a, b);
  const { upright, level } = stepsOf(a, width, length);
  const other = stepsOf(b, width, length);
  let total = 0;
  for (let i = 0; i < upright.length; i++) {
    upright[i] += other.upright[i];
    level[i] += other.level[i];
    total += upright[i] + level[i];
  }
  const base = total / (8 * upright.length) + FLAT;
  for (let y = 0; y < length; y++) {
    const above = (y === 0 ? length - 1 : y - 1) * width;
    for (let x = 0; x < width; x++) {
      const q = y * width + x;
      if (x > 0) upright[q] = (distance[q] + distance[q - 1]) / (upright[q] + base) + LENGTH_COST;
      level[q] = (distance[q] + distance[above + x]) / (level[q] + base) + LENGTH_COST;
    }
  }
  return { upright, level };
}

export const reference = { cutCosts };
