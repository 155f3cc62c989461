import { drawn } from '../../lattice/draw.ts';
import { cellOf, type Lattice } from '../../lattice/lattice.ts';

/** What of a place among the points: its distance to the nearest and the second nearest in cells, their difference, or the value 0 ≤ v < 1 that is drawn for the nearest. */
export type CellMeasure = 'first' | 'second' | 'between' | 'value';

const SHORT = 2 ** 16;

/** The 5 × 5 cells about one, those that touch it first: across and down. */
export const AROUND = Int32Array.from(
  Array.from({ length: 25 }, (_, k) => [(k % 5) - 2, Math.floor(k / 5) - 2])
    .sort((a, b) => Math.max(...a.map(Math.abs)) - Math.max(...b.map(Math.abs)))
    .flat(),
);
/** Where the points of the outer ring begin. */
const INNER = 3 * 9;

/**
 * Cellular noise of points drawn one to a cell of a lattice that wraps (Worley 1996), at places in cells times `times`, into the
 * start of `out`. The cell that the last place was in is remembered, as neighbours come one after the other.
 */
export function cellNoise(
  lattice: Lattice,
  seed: number,
  xs: Float64Array,
  ys: Float64Array,
  times: number,
  measure: CellMeasure,
  out: Float64Array,
): void {
  /** Whether the nearest point is enough. */
  const isNearest = measure === 'first' || measure === 'value';
  let cellX = Number.NaN;
  let cellY = Number.NaN;
  /** Points of the 5 × 5 cells about the current one, the nearest 3 × 3 of them first, from its corner: x, y, value. */
  const points = new Float64Array(3 * 25);
  const enter = (x: number, y: number) => {
    cellX = x;
    cellY = y;
    for (let k = 0; k < 25; k++) {
      const px = AROUND[2 * k];
      const py = AROUND[2 * k + 1];
      const cell = cellOf(lattice, x + px, y + py);
      const place = drawn(cell, seed);
      points[3 * k] = px + (place % SHORT) / SHORT;
      points[3 * k + 1] = py + Math.floor(place / SHORT) / SHORT;
      points[3 * k + 2] = drawn(cell, seed + 0x51) / 2 ** 32;
    }
  };
  for (let i = 0; i < xs.length; i++) {
    const x = times * xs[i];
    const y = times * ys[i];
    const x0 = Math.floor(x);
    const y0 = Math.floor(y);
    if (x0 !== cellX || y0 !== cellY) enter(x0, y0);
    let first = Number.POSITIVE_INFINITY;
    let second = Number.POSITIVE_INFINITY;
    let value = 0;
    const fx = x - x0;
    const fy = y - y0;
    // Points of the outer ring are at least so far away.
    const ring = (1 + Math.min(fx, 1 - fx, fy, 1 - fy)) ** 2;
    for (let k = 0; k < 75; k += 3) {
      if (k === INNER && (isNearest ? first : second) <= ring) break;
      const dx = points[k] - fx;
      const dy = points[k + 1] - fy;
      const away = dx * dx + dy * dy;
      if (away < first) {
        second = first;
        first = away;
        value = points[k + 2];
      } else if (away < second) second = away;
    }
    if (measure === 'first') out[i] = Math.sqrt(first);
    else if (measure === 'second') out[i] = Math.sqrt(second);
    else if (measure === 'between') out[i] = Math.sqrt(second) - Math.sqrt(first);
    else out[i] = value;
  }
}

export const reference = { cellNoise };
