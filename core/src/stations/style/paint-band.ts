import { KERNELS } from '../../kernels/kernels.ts';
import { type Prints, STROKE_VALUES, type StrokeList } from '../../kernels/paint-strokes/reference.ts';
import { PLANES } from '../../memory/pool.ts';
import type { Edges } from '../../raster/edges.ts';
import type { Sides } from '../../raster/sides.ts';
import { task } from '../../team/task.ts';

/**
 * Sides of the blocks that are painted at once: what is worked on stays near the processor. They lie on one lattice however many
 * share the work, as places within a block are rounded to 32 bits.
 */
const BLOCK = 128;

/** Blocks side by side that are one task. */
const PIECE = 2;

/** A part of a picture, up to but without its right and its bottom, in pixels. */
interface Place {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/** Pieces of a picture of whole blocks, for a task each. */
export function piecesOf({ width, height }: Sides): Place[] {
  const pieces: Place[] = [];
  for (let top = 0; top < height; top += BLOCK) {
    for (let left = 0; left < width; left += PIECE * BLOCK) {
      const right = Math.min(width, left + PIECE * BLOCK);
      pieces.push({ left, right, top, bottom: Math.min(height, top + BLOCK) });
    }
  }
  return pieces;
}

/** What a picture is painted with. */
export interface Painting extends Sides {
  /** L, a, b, ridge of each pixel: read and written in place, each piece by one member. */
  canvas: Float32Array;
  /** L, a, b of each pixel and how unlike it may be. */
  guide: Float32Array;
  prints: Prints;
  strokes: StrokeList;
  boxes: Float64Array;
  edges: Edges;
}

/** Copies a block of pixels of four values out of a picture, or with `isBack` into it. */
function copyBlock(
  block: Float32Array,
  pixels: Float32Array,
  { left, right, top, bottom }: Place,
  width: number,
  isBack: boolean,
): void {
  const line = 4 * (right - left);
  for (let y = top; y < bottom; y++) {
    const [at, from] = [(y - top) * line, 4 * (y * width + left)];
    if (isBack) pixels.set(block.subarray(at, at + line), from);
    else block.set(pixels.subarray(from, from + line), at);
  }
}

/** Paints strokes on the blocks of a piece. */
export const paintPiece = task(
  'paintPiece',
  async (checkpoint, how: Painting, { left, right, top, bottom }: Place): Promise<void> => {
    for (let from = left; from < right; from += BLOCK) {
      const place = { left: from, right: Math.min(right, from + BLOCK), top, bottom };
      const length = 4 * (place.right - from) * (bottom - top);
      const [canvas, guide] = [PLANES.take(length), PLANES.take(length)];
      copyBlock(canvas, how.canvas, place, how.width, false);
      copyBlock(guide, how.guide, place, how.width, false);
      KERNELS.paintStrokes({ canvas, guide, ...place }, strokesNear(how, place), how.prints, how, how.edges);
      copyBlock(canvas, how.canvas, place, how.width, true);
      PLANES.give(canvas, guide);
      await checkpoint((place.right - left) / (right - left));
    }
  },
);

/** Values of a stroke's box: from left to right and from top to bottom, a pixel wider than the stroke. */
const BOX = 4;

/** The boxes that strokes lie in, in pixels. */
export function boxesOf({ values, points }: StrokeList): Float64Array {
  const boxes = new Float64Array((BOX * values.length) / STROKE_VALUES);
  for (let n = 0, at = 0; n < values.length; n += STROKE_VALUES, at += BOX) {
    const reach = values[n + 2] + 1;
    const last = values[n] + 2 * values[n + 1];
    let [x0, x1, y0, y1] = [Infinity, -Infinity, Infinity, -Infinity];
    for (let k = values[n]; k < last; k += 2) {
      x0 = Math.min(x0, points[k]);
      x1 = Math.max(x1, points[k]);
      y0 = Math.min(y0, points[k + 1]);
      y1 = Math.max(y1, points[k + 1]);
    }
    boxes[at] = x0 - reach;
    boxes[at + 1] = x1 + reach;
    boxes[at + 2] = y0 - reach;
    boxes[at + 3] = y1 + reach;
  }
  return boxes;
}

/** Whether lo…hi reaches into from…to, on an axis of `size` that may wrap. */
const reaches = (lo: number, hi: number, from: number, to: number, size: number, isRound: boolean): boolean =>
  (hi >= from && lo <= to) ||
  (isRound && ((hi + size >= from && lo + size <= to) || (hi - size >= from && lo - size <= to)));

/** The strokes that reach into a block. */
function strokesNear(
  { strokes, boxes, width, height, edges }: Painting,
  { left, right, top, bottom }: Place,
): StrokeList {
  const { values, points } = strokes;
  const near: number[] = [];
  for (let k = 0; BOX * k < boxes.length; k++) {
    const at = BOX * k;
    if (!reaches(boxes[at + 2], boxes[at + 3], top, bottom, height, edges.y === 'wrap')) continue;
    if (reaches(boxes[at], boxes[at + 1], left, right, width, edges.x === 'wrap')) near.push(k);
  }
  const found = new Float64Array(near.length * STROKE_VALUES);
  for (const [n, k] of near.entries()) {
    found.set(values.subarray(k * STROKE_VALUES, (k + 1) * STROKE_VALUES), n * STROKE_VALUES);
  }
  return { values: found, points };
}
