import type { Edges } from '../../raster/edges.ts';

/** Columns and rows of a brush's print: along the stroke and across it. Each further level has half of both. */
export const PRINT_COLUMNS = 256;
export const PRINT_ROWS = 64;
export const PRINT_LEVELS = 3;
/** Samples across a print that each pixel across a stroke has at least. */
const PER_PIXEL = 0.8;

/** Samples of prints of a level. */
export const samplesOf = (level: number): number => (PRINT_COLUMNS >> level) * (PRINT_ROWS >> level);

/** The level of prints that a stroke of this radius takes: as fine as its pixels, no finer, so that nothing flickers. */
export function levelFor(radius: number): number {
  let level = 0;
  while (level + 1 < PRINT_LEVELS && PRINT_ROWS >> (level + 1) >= PER_PIXEL * 2 * radius) level++;
  return level;
}

/** Prints of brushes: alpha and ridge of every sample, all prints of one level after those of the finer one. */
export interface Prints {
  values: Float32Array;
  count: number;
}

/** Strokes as numbers, `STROKE_VALUES` for each, and the points of their spines, x and y in pixels. */
export interface StrokeList {
  values: Float64Array;
  points: Float64Array;
}

/** Values of a stroke, in their order. */
export interface StrokeValues {
  /** Where its spine begins among the points (in values), and how many points it has. */
  first: number;
  count: number;
  /** Half its width and its length, in pixels. */
  radius: number;
  length: number;
  /** What it paints: L, a, b and ridge. */
  L: number;
  a: number;
  b: number;
  ridge: number;
  /** The picture's own colour under it: what a pixel must be like to take its paint. */
  ownL: number;
  ownA: number;
  ownB: number;
  /** Times how unlike a pixel may be. */
  keep: number;
  opacity: number;
  /** What one unit of the print's ridge adds to L and to the ridge. */
  lightOfRidge: number;
  ridgeOfRidge: number;
  /** The print, and ±1 for the side that its first row lies on. */
  print: number;
  side: number;
}

export const STROKE_VALUES = 17;

/** The values of strokes one after another. */
export function strokeValues(strokes: readonly StrokeValues[]): Float64Array {
  const out = new Float64Array(STROKE_VALUES * strokes.length);
  for (const [k, s] of strokes.entries()) {
    const paint = [s.L, s.a, s.b, s.ridge, s.ownL, s.ownA, s.ownB, s.keep, s.opacity];
    const rest = [s.lightOfRidge, s.ridgeOfRidge, s.print, s.side];
    out.set([s.first, s.count, s.radius, s.length, ...paint, ...rest], STROKE_VALUES * k);
  }
  return out;
}

/** A block of a picture that is painted: `canvas` and `guide` hold four values for each pixel of it. */
export interface PaintedBlock {
  /** L, a, b and ridge; painted in place. */
  canvas: Float32Array;
  /** L, a, b of the picture, and how unlike a pixel may be. */
  guide: Float32Array;
  left: number;
  top: number;
  /** The first column and row behind it. */
  right: number;
  bottom: number;
}

const FAR = 1e18;
const FAINT = 0.004;
/** How far a piece of a spine counts beyond its ends at least, in pixels: rounding leaves no gap between two of them. */
const BEYOND = 0.05;

/** The print's alpha and ridge at a place 0..1 along it and across it. */
function printAt(
  { values, count }: Prints,
  print: number,
  level: number,
  u: number,
  v: number,
): [number, number] {
  const [columns, rows] = [PRINT_COLUMNS >> level, PRINT_ROWS >> level];
  const x = Math.min(columns - 1.001, Math.max(0, u * columns - 0.5));
  const y = Math.min(rows - 1.001, Math.max(0, v * rows - 0.5));
  const [i, j] = [Math.floor(x), Math.floor(y)];
  const [fx, fy] = [x - i, y - j];
  let start = print * samplesOf(level);
  for (let k = 0; k < level; k++) start += count * samplesOf(k);
  const at = 2 * (start + j * columns + i);
  const value = (c: number) => {
    const left = values[at + c] * (1 - fy) + values[at + 2 * columns + c] * fy;
    const right = values[at + 2 + c] * (1 - fy) + values[at + 2 * columns + 2 + c] * fy;
    return left + fx * (right - left);
  };
  return [value(0), value(1)];
}

/** Unit vectors along the pieces of a spine, x and y one after another, and their lengths. */
function piecesOf(spine: Float64Array): { ways: Float64Array; lengths: Float64Array } {
  const count = spine.length / 2 - 1;
  const [ways, lengths] = [new Float64Array(2 * count), new Float64Array(count)];
  for (let k = 0; k < count; k++) {
    const [ax, ay, bx, by] = spine.subarray(2 * k, 2 * k + 4);
    lengths[k] = Math.sqrt((bx - ax) * (bx - ax) + (by - ay) * (by - ay));
    ways[2 * k] = (bx - ax) / lengths[k];
    ways[2 * k + 1] = (by - ay) / lengths[k];
  }
  return { ways, lengths };
}

/** Where a pixel lies by a spine: the square of its distance, how far along, and on which side; null beyond its ends. */
function nearestOnSpine(
  spine: Float64Array,
  x: number,
  y: number,
  radius: number,
): { square: number; along: number; side: number } | null {
  let found: { square: number; along: number; side: number } | null = null;
  let least = FAR;
  let at = 0;
  const { ways, lengths } = piecesOf(spine);
  const last = lengths.length - 1;
  const reach = radius + 1;
  // Outside of a bend a stroke is round, half of which belongs to each piece: the sine of half the turn, times the reach.
  const beyond = (k: number) =>
    0.5 * Math.hypot(ways[2 * k + 2] - ways[2 * k], ways[2 * k + 3] - ways[2 * k + 1]) * reach + BEYOND;
  for (let k = 0; k <= last; k++) {
    const length = lengths[k];
    const [dx, dy] = ways.subarray(2 * k, 2 * k + 2);
    const [qx, qy] = [x - spine[2 * k], y - spine[2 * k + 1]];
    let t = qx * dx + qy * dy;
    // Beyond its ends it has no paint.
    const isBeyond = t < (k === 0 ? 0 : -beyond(k - 1)) || t > (k === last ? length : length + beyond(k));
    t = Math.max(0, Math.min(length, t));
    const [ex, ey] = [qx - dx * t, qy - dy * t];
    const square = ex * ex + ey * ey;
    if (!isBeyond && square <= reach * reach && square < least) {
      least = square;
      found = { square, along: at + t, side: qy * dx - qx * dy > 0 ? 1 : -1 };
    }
    at += length;
  }
  return found;
}

/** Lays a stroke's paint over one pixel. */
function paintPixel(
  { canvas, guide }: PaintedBlock,
  at: number,
  values: Float64Array,
  [alpha, ridge]: [number, number],
): void {
  const [L, a, b, height, ownL, ownA, ownB, keep, opacity, lightOfRidge, ridgeOfRidge] = values.subarray(4);
  const [dL, da, db] = [guide[at] - ownL, guide[at + 1] - ownA, guide[at + 2] - ownB];
  const kept = guide[at + 3] * keep;
  const unlike = (dL * dL + 4 * (da * da + db * db)) / (kept * kept);
  const share = (alpha * opacity) / (1 + unlike * unlike);
  const target = [L + ridge * lightOfRidge, a, b, height + ridge * ridgeOfRidge];
  for (let c = 0; c < 4; c++) canvas[at + c] += share * (target[c] - canvas[at + c]);
}

/** The pixels lo…hi of an axis that a stroke's box covers within a block, with where each lies by the stroke. */
function* covered(lo: number, hi: number, from: number, to: number, size: number, isRound: boolean) {
  for (let at = from; at < to; at++) {
    for (const shift of isRound ? [-size, 0, size] : [0]) {
      if (at - shift >= lo && at - shift <= hi) yield { at, by: at - shift };
    }
  }
}

/**
 * Paints strokes in their order on a block of a picture, each by a brush's print that follows its spine, and only where the
 * picture is like the stroke (strokes after Hertzmann 1998). On an axis that wraps a stroke goes on at the other side; on one
 * that mirrors it ends at the edge. Strokes begin on the picture and are no longer than its sides.
 */
export function paintStrokes(
  block: PaintedBlock,
  { values, points }: StrokeList,
  prints: Prints,
  { width, height }: { width: number; height: number },
  edges: Edges,
): void {
  const { left, top, right, bottom } = block;
  for (let n = 0; n < values.length; n += STROKE_VALUES) {
    const stroke = values.subarray(n, n + STROKE_VALUES);
    const [first, count, radius, length] = stroke;
    const [print, side] = stroke.subarray(15);
    const level = levelFor(radius);
    const spine = points.subarray(first, first + 2 * count);
    const xs = spine.filter((_value, k) => k % 2 === 0);
    const ys = spine.filter((_value, k) => k % 2 === 1);
    const reach = radius + 2;
    const rows = [Math.min(...ys) - reach, Math.max(...ys) + reach] as const;
    const columns = [Math.min(...xs) - reach, Math.max(...xs) + reach] as const;
    for (const row of covered(...rows, top, bottom, height, edges.y === 'wrap')) {
      for (const column of covered(...columns, left, right, width, edges.x === 'wrap')) {
        const near = nearestOnSpine(spine, column.by, row.by, radius);
        if (!near) continue;
        const v = 0.5 + 0.5 * near.side * side * Math.min(1, Math.sqrt(near.square) / radius);
        const mark = printAt(prints, print, level, near.along / length, v);
        if (mark[0] < FAINT) continue;
        paintPixel(block, 4 * ((row.at - top) * (right - left) + column.at - left), stroke, mark);
      }
    }
  }
}

export const reference = { paintStrokes };
