import { drawn } from './draw.ts';
import { cellOf, type Lattice } from './lattice.ts';

/** Distances in cells to the nearest point and the second nearest, and which point is nearest. */
export interface Nearest {
  first: number;
  second: number;
  /** 0 ≤ v < 1, drawn for the nearest point. */
  value: number;
}

const SHORT = 2 ** 16;

/** The 5 × 5 cells about one, those that touch it first: across and down. */
const AROUND = Int8Array.from(
  Array.from({ length: 25 }, (_, k) => [(k % 5) - 2, Math.floor(k / 5) - 2])
    .sort((a, b) => Math.max(...a.map(Math.abs)) - Math.max(...b.map(Math.abs)))
    .flat(),
);
/** Where the points of the outer ring begin. */
const INNER = 3 * 9;

/**
 * Points drawn one to a cell of a lattice that wraps (Worley 1996): a function of cells across and down that writes the
 * distances to the two nearest of them. `jitter` 0..1 is how far points stray from the middle of their cell.
 */
export function cellularNoise(
  lattice: Lattice,
  seed: number,
  jitter = 1,
): (x: number, y: number, out: Nearest) => void {
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
      points[3 * k] = px + 0.5 + jitter * ((place % SHORT) / SHORT - 0.5);
      points[3 * k + 1] = py + 0.5 + jitter * (Math.floor(place / SHORT) / SHORT - 0.5);
      points[3 * k + 2] = drawn(cell, seed + 0x51) / 2 ** 32;
    }
  };
  return (x, y, out) => {
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
      if (k === INNER && second <= ring) break;
      const dx = points[k] - fx;
      const dy = points[k + 1] - fy;
      const away = dx * dx + dy * dy;
      if (away < first) {
        second = first;
        first = away;
        value = points[k + 2];
      } else if (away < second) second = away;
    }
    out.first = Math.sqrt(first);
    out.second = Math.sqrt(second);
    out.value = value;
  };
}
