import { wrapped } from '../raster/wrapped.ts';
import { coverOf } from '../strokes/cover.ts';
import { type Canvas, layerOf, type OnShape, put, type Where } from './canvas.ts';
import { coverPatch } from './patch.ts';
import type { PaintStroke } from './stroke.ts';

/** One band along the whole way of a stroke. */
export function paintBand(
  canvas: Canvas,
  stroke: PaintStroke,
  { width, height, edges, indices }: Where,
): void {
  const cover = coverOf(stroke, width, height, edges);
  const layer = layerOf(canvas, stroke, stroke.flow !== undefined);
  for (const index of indices) {
    for (let y = 0, k = 0; y < cover.height; y++) {
      const row = wrapped(cover.y + y, height) * width;
      for (let x = 0; x < cover.width; x++, k++) {
        const share = (stroke.flow ?? 1) * cover.values[k];
        if (share > 0) put(canvas, index(row + wrapped(cover.x + x, width)), share, layer);
      }
    }
  }
}

/** One band along the way of a stroke over a shape, on all its patches at once. */
export function paintPatches(canvas: Canvas, stroke: PaintStroke & OnShape, where: Where): void {
  const layer = layerOf(canvas, stroke, stroke.flow !== undefined);
  const shares = new Map<number, number>();
  for (const patch of stroke.patches) {
    coverPatch(patch, stroke, where, (i, share) => {
      if (share > (shares.get(i) ?? 0)) shares.set(i, share);
    });
  }
  for (const index of where.indices) {
    for (const [i, share] of shares) put(canvas, index(i), (stroke.flow ?? 1) * share, layer);
  }
}
