import type { Band } from '../../raster/band.ts';
import { type Edges, edgeIndex } from '../../raster/edges.ts';

/** A direction in which a field is looked along, one row further at each step. */
export interface Direction {
  /** Towards the rows above (−1) or below (1). */
  down: -1 | 1;
  /** Columns crossed for one step: −1, −½, 0, ½ or 1. */
  slope: number;
  /** Of the sky, for which this direction stands, 0..1. */
  share: number;
}

/** How a field is looked at: `radius` pixels far (at least 1), with `bias` taken off the tangent of every horizon. */
export interface Looking {
  directions: Direction[];
  radius: number;
  bias: number;
  edges: Edges;
}

/**
 * Sum over directions of `share` · cos² of the horizon, for the pixels of a band of rows of a square field of `size` ×
 * `size` heights in pixels. The horizon is the steepest rise to any of the points that lie whole steps away within the
 * radius, by marching outwards (after Max 1988) until the highest of all could not rise more; a point half-way between two
 * pixels is their mean.
 */
export function sweepHorizons(
  field: Float32Array,
  size: number,
  { directions, radius, bias, edges }: Looking,
  { from, to }: Band,
): Float32Array {
  const sum = new Float32Array(size * (to - from));
  let highest = Number.NEGATIVE_INFINITY;
  for (const h of field) highest = Math.max(highest, h);
  for (const { down, slope, share } of directions) {
    const step = Math.sqrt(1 + slope * slope);
    const reach = Math.max(1, Math.floor(radius / step));
    for (let y = from, i = 0; y < to; y++) {
      for (let x = 0; x < size; x++, i++) {
        const h = field[y * size + x];
        let rise = 0;
        for (let k = 1; k <= reach && h + rise * k < highest; k++) {
          const row = edgeIndex(y + k * down, size, edges.y) * size;
          const left = Math.floor(x + k * slope);
          let seen = field[row + edgeIndex(left, size, edges.x)];
          if (left !== x + k * slope) seen = (seen + field[row + edgeIndex(left + 1, size, edges.x)]) / 2;
          rise = Math.max(rise, (seen - h) / k);
        }
        const tan = Math.max(0, rise / step - bias);
        sum[i] += share / (1 + tan * tan);
      }
    }
  }
  return sum;
}

export const reference = { sweepHorizons };
