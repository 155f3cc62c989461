import { mirrorImages } from '../masks/mask.ts';
import type { Edges } from '../raster/edges.ts';
import type { Raster } from '../raster/raster.ts';
import type { Sides } from '../raster/sides.ts';
import type { Steps } from '../work/steps.ts';
import { paintBand, paintPatches } from './band.ts';
import type { Canvas } from './canvas.ts';
import { turnedImages } from './images.ts';
import type { PictureStamp } from './picture-stamp.ts';
import { paintPrints, printPatches } from './printing.ts';
import { paintFill } from './region.ts';
import type { PaintStroke } from './stroke.ts';

/** An index of a pixel mirrored about the middle of the tile. */
const mirrored =
  ({ width, height }: Sides, isAcross: boolean, isDown: boolean) =>
  (i: number): number => {
    const y = Math.floor(i / width);
    const x = i - y * width;
    return (isDown ? height - 1 - y : y) * width + (isAcross ? width - 1 - x : x);
  };

/**
 * Paints strokes in their order on a canvas, over what was painted before them. What a stroke mirrors is the same to the bit; on
 * axes that wrap it comes in again on the other side.
 */
export function* painting(
  strokes: readonly PaintStroke[],
  canvas: Canvas,
  { width, height, edges }: Sides & { edges: Edges },
  ground: Raster | null = null,
  stamps: ReadonlyMap<string, PictureStamp> = new Map(),
): Steps<void> {
  const sides = { width, height };
  for (const stroke of strokes) {
    const indices = mirrorImages(stroke.mirror).map(([across, down]) =>
      across || down ? mirrored(sides, across, down) : (i: number) => i,
    );
    const where = { ...sides, edges, ground, stamps, indices };
    const { prints, patches } = stroke;
    if (patches) {
      if (prints) yield* printPatches(canvas, { ...stroke, patches, prints }, where);
      else paintPatches(canvas, { ...stroke, patches }, where);
      yield;
      continue;
    }
    for (const image of turnedImages(stroke, sides)) {
      const { prints, fill } = image;
      if (fill) paintFill(canvas, { ...image, fill }, where);
      else if (prints) yield* paintPrints(canvas, { ...image, prints }, where);
      else paintBand(canvas, image, where);
      yield;
    }
  }
}
