import { type Edges, edgeIndex } from '../../raster/edges.ts';
import { HorizonLine } from './horizon.ts';

/** One direction in which a square field is walked, one step along its rows at a time. */
export interface Direction {
  /** Rows crossed for one step along a row. */
  slope: number;
  /** Walk the rows from their end. */
  back: boolean;
}

/** Lines of one direction that meet pixels at the same steps. */
export interface Lines {
  /** Where each step lies in its row. */
  column: Int32Array;
  /** How many rows further each step lies. */
  shift: Int32Array;
  /** 1 where a step lies between two pixels: it hides others, but is nobody's. */
  between: Uint8Array;
  /** Start of each row in the field, from row `base` on. */
  rows: Int32Array;
  base: number;
  first: number;
  last: number;
  /** Rows off the field are walked on the way, but have no pixels of their own. */
  within: boolean;
}

/** How a field is walked in one direction: pixels seen at most, length of a step in pixels, and the lines. */
export interface Walked {
  reach: number;
  step: number;
  lines: Lines[];
}

/** The lines of one direction over a field of `size` × `size`, seeing `radius` pixels far. */
export function walked(size: number, { slope, back }: Direction, radius: number, edges: Edges): Walked {
  const step = Math.sqrt(1 + slope * slope);
  const reach = Math.max(1, Math.floor(radius / step));
  const count = size + reach;
  const column = new Int32Array(count);
  for (let k = 0; k < count; k++) {
    column[k] = edgeIndex(back ? size - 1 - (k - reach) : k - reach, size, edges.x);
  }
  // A line of slope ½ meets pixel centres at every other step only: a second one takes the others.
  const phases = Number.isInteger(slope) ? [0] : [0, 1];
  const lines = phases.map((phase) => {
    const shift = Int32Array.from({ length: count }, (_, k) => Math.floor((k - reach + phase) * slope));
    const between = Uint8Array.from({ length: count }, (_, k) =>
      phases.length === 2 ? (k - reach + phase) & 1 : 0,
    );
    const low = Math.min(shift[0], shift[count - 1]);
    const high = Math.max(shift[0], shift[count - 1]) + 1;
    // On a mirrored axis lines also start outside the field, so that each of its pixels is reached once.
    const wraps = edges.y === 'wrap';
    const first = wraps ? 0 : -high;
    const last = wraps ? size : size - low;
    const base = first + low;
    const rows = Int32Array.from(
      { length: last - first + high - low + 1 },
      (_, k) => edgeIndex(base + k, size, edges.y) * size,
    );
    return { column, shift, between, rows, base, first, last, within: !wraps };
  });
  return { reach, step, lines };
}

/** The same lines in so many parts; what is seen along each adds up to the whole. */
export function inParts(whole: Walked, count: number): Walked[] {
  return Array.from({ length: count }, (_, k) => ({
    ...whole,
    lines: whole.lines.map((lines) => {
      const cut = (at: number) => lines.first + Math.round((at * (lines.last - lines.first)) / count);
      return { ...lines, first: cut(k), last: cut(k + 1) };
    }),
  }));
}

/** `share` · cos² of the horizon of each pixel of a square field along one direction; `bias` is taken off its tangent. */
export function sweepHorizons(
  field: Float32Array,
  size: number,
  { reach, step, lines }: Walked,
  bias: number,
  share: number,
): Float32Array {
  const sum = new Float32Array(field.length);
  const horizon = new HorizonLine(reach);
  const count = size + reach;
  const heights = new Float64Array(count);
  const rises = new Float64Array(count);
  for (const { column, shift, between, rows, base, first, last, within } of lines) {
    for (let line = first; line < last; line++) {
      for (let k = 0; k < count; k++) {
        const at = line + shift[k] - base;
        const h = field[rows[at] + column[k]];
        heights[k] = between[k] ? (h + field[rows[at + 1] + column[k]]) / 2 : h;
      }
      horizon.sweep(heights, count, rises, between);
      for (let k = reach; k < count; k++) {
        if (between[k]) continue;
        const row = line + shift[k];
        if (within && (row < 0 || row >= size)) continue;
        const tan = Math.max(0, rises[k] / step - bias);
        sum[rows[row - base] + column[k]] += share / (1 + tan * tan);
      }
    }
  }
  return sum;
}
