import { MARK } from '@zesty-tile/core';
import type { Marks } from '../../engine/protocol.ts';

/** Where the albedo lies beyond any real surface: one picture of those pixels for each side. */
export interface Hatches {
  below: HTMLCanvasElement;
  above: HTMLCanvasElement;
  belowMetal: HTMLCanvasElement;
}

/** Which way lines run: rising (above), falling (below), or both (below any metal). */
type Way = 'rising' | 'falling' | 'crossed';

const SPACING = 6;

/** Dark and light lines, so that they show on any ground. */
function lines(context: CanvasRenderingContext2D, way: Way): CanvasPattern | null {
  const small = document.createElement('canvas');
  small.width = SPACING;
  small.height = SPACING;
  const pen = small.getContext('2d')!;
  for (const [colour, offset] of [
    ['rgba(0,0,0,.9)', 0],
    ['rgba(255,255,255,.85)', SPACING / 2],
  ] as const) {
    pen.strokeStyle = colour;
    pen.lineWidth = 1.4;
    pen.beginPath();
    for (const shift of [-SPACING, 0, SPACING]) {
      const x = offset + shift;
      if (way !== 'falling') {
        pen.moveTo(x, SPACING);
        pen.lineTo(x + SPACING, 0);
      }
      if (way !== 'rising') {
        pen.moveTo(x, 0);
        pen.lineTo(x + SPACING, SPACING);
      }
    }
    pen.stroke();
  }
  return context.createPattern(small, 'repeat');
}

/** The pixels beyond a limit, as pictures to be laid like the tile. */
export function hatchesOf({ width, height, values }: Marks): Hatches {
  const mask = (wanted: number) => {
    const canvas = document.createElement('canvas');
    canvas.width = width;
    canvas.height = height;
    const picture = new ImageData(width, height);
    const { data } = picture;
    for (let i = 0; i < values.length; i++) if (values[i] === wanted) data[4 * i + 3] = 255;
    canvas.getContext('2d')?.putImageData(picture, 0, 0);
    return canvas;
  };
  return { below: mask(MARK.below), above: mask(MARK.above), belowMetal: mask(MARK.belowMetal) };
}

/** Draws hatching wherever `lay` draws the masks; the lines keep their width at any zoom. */
export function drawHatches(
  context: CanvasRenderingContext2D,
  hatches: Hatches,
  lay: (context: CanvasRenderingContext2D, mask: HTMLCanvasElement) => void,
): void {
  const layer = document.createElement('canvas');
  layer.width = context.canvas.width;
  layer.height = context.canvas.height;
  const pen = layer.getContext('2d')!;
  for (const [mask, way] of [
    [hatches.below, 'falling'],
    [hatches.above, 'rising'],
    [hatches.belowMetal, 'crossed'],
  ] as const) {
    pen.setTransform(context.getTransform());
    pen.clearRect(0, 0, layer.width, layer.height);
    lay(pen, mask);
    pen.setTransform(1, 0, 0, 1, 0, 0);
    pen.globalCompositeOperation = 'source-in';
    pen.fillStyle = lines(pen, way) ?? '#000';
    pen.fillRect(0, 0, layer.width, layer.height);
    pen.globalCompositeOperation = 'source-over';
    context.save();
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.drawImage(layer, 0, 0);
    context.restore();
  }
}
