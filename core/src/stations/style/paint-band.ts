import { KERNELS } from '../../kernels/kernels.ts';
import { type Prints, STROKE_VALUES, type StrokeList } from '../../kernels/paint-strokes/reference.ts';
import type { Band } from '../../raster/band.ts';
import type { Edges } from '../../raster/edges.ts';
import type { Sides } from '../../raster/sides.ts';
import { task } from '../../team/task.ts';

/**
 * Sides of the blocks that are painted at once: what is worked on stays near the processor. They lie on one lattice however many
 * share the work, as places within a block are rounded to 32 bits.
 */
const BLOCK = 128;

/** Rows of whole blocks, for a task each. */
export const rowsOfBlocks = (height: number): Band[] =>
  Array.from({ length: Math.ceil(height / BLOCK) }, (_, k) => ({
    from: k * BLOCK,
    to: Math.min(height, (k + 1) * BLOCK),
  }));

/** What rows are painted with. */
export interface Painting extends Sides {
  /** L, a, b, ridge: read and written in place, each band by one member. */
  canvas: Float32Array[];
  /** L, a, b and how unlike a pixel may be. */
  guide: Float32Array[];
  prints: Prints;
  strokes: StrokeList;
  edges: Edges;
}

/** A block of four planes, as pixels of four values one after another. */
function blockOf(planes: readonly Float32Array[], width: number, left: number, right: number, rows: Band) {
  const out = new Float32Array(4 * (right - left) * (rows.to - rows.from));
  for (const [c, plane] of planes.entries()) {
    let at = c;
    for (let y = rows.from; y < rows.to; y++) {
      for (let i = y * width + left; i < y * width + right; i++, at += 4) out[at] = plane[i];
    }
  }
  return out;
}

/** Puts a block back into its planes. */
function putBlock(
  block: Float32Array,
  planes: readonly Float32Array[],
  width: number,
  left: number,
  right: number,
  rows: Band,
): void {
  for (const [c, plane] of planes.entries()) {
    let at = c;
    for (let y = rows.from; y < rows.to; y++) {
      for (let i = y * width + left; i < y * width + right; i++, at += 4) plane[i] = block[at];
    }
  }
}

/** Paints strokes on a row of blocks. */
export const paintBand = task('paintBand', async (checkpoint, how: Painting, rows: Band): Promise<void> => {
  const { width } = how;
  for (let left = 0; left < width; left += BLOCK) {
    const right = Math.min(width, left + BLOCK);
    const canvas = blockOf(how.canvas, width, left, right, rows);
    const guide = blockOf(how.guide, width, left, right, rows);
    const block = { canvas, guide, left, right, top: rows.from, bottom: rows.to };
    KERNELS.paintStrokes(block, strokesNear(how, left, right, rows), how.prints, how, how.edges);
    putBlock(canvas, how.canvas, width, left, right, rows);
    await checkpoint(right / width);
  }
});

/** Whether lo…hi reaches into from…to, on an axis of `size` that may wrap. */
const reaches = (lo: number, hi: number, from: number, to: number, size: number, isRound: boolean): boolean =>
  (hi >= from && lo <= to) ||
  (isRound && ((hi + size >= from && lo + size <= to) || (hi - size >= from && lo - size <= to)));

/** The strokes that reach into a block. */
function strokesNear(
  { strokes, width, height, edges }: Painting,
  left: number,
  right: number,
  rows: Band,
): StrokeList {
  const { values, points } = strokes;
  const near: number[] = [];
  for (let n = 0; n < values.length; n += STROKE_VALUES) {
    const reach = values[n + 2] + 1;
    const last = values[n] + 2 * values[n + 1];
    let [x0, x1, y0, y1] = [Infinity, -Infinity, Infinity, -Infinity];
    for (let k = values[n]; k < last; k += 2) {
      x0 = Math.min(x0, points[k]);
      x1 = Math.max(x1, points[k]);
      y0 = Math.min(y0, points[k + 1]);
      y1 = Math.max(y1, points[k + 1]);
    }
    if (!reaches(y0 - reach, y1 + reach, rows.from, rows.to, height, edges.y === 'wrap')) continue;
    if (reaches(x0 - reach, x1 + reach, left, right, width, edges.x === 'wrap')) near.push(n);
  }
  const found = new Float64Array(near.length * STROKE_VALUES);
  for (const [k, n] of near.entries()) found.set(values.subarray(n, n + STROKE_VALUES), k * STROKE_VALUES);
  return { values: found, points };
}
