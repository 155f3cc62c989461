import { type RefObject, useLayoutEffect } from 'react';
import { drawFloor } from './draw.ts';
import type { Look, Size } from './geometry.ts';

/** How long a picture stays before it is drawn at its finest, in ms. */
const FINE_AFTER_MS = 200;

interface Drawing {
  canvasRef: RefObject<HTMLCanvasElement | null>;
  picture: HTMLCanvasElement | null;
  /** The picture from before, and the share of the Floor that it covers from the left. */
  beforePicture: HTMLCanvasElement | null;
  until: number | null;
  hatches: Parameters<typeof drawFloor>[2]['hatches'];
  stage: Size;
  tile: Size;
  repeats: number;
  halfShift: boolean;
  edgeLines: boolean;
  look: Look;
}

/** Draws the Floor: quickly at once, and finely when the picture stays. */
export function useDrawing({
  canvasRef,
  picture,
  beforePicture,
  until,
  hatches,
  stage,
  tile,
  repeats,
  halfShift,
  edgeLines,
  look,
}: Drawing): void {
  // Before the browser paints, so that the picture and what lies over it change in one frame.
  useLayoutEffect(() => {
    const canvas = canvasRef.current;
    const context = canvas?.getContext('2d');
    if (!canvas || !context || stage.width === 0) return;
    const [width, height] = [stage.width, stage.height].map((side) => Math.round(side * devicePixelRatio));
    // Setting its size clears a canvas, even to the size it has.
    if (canvas.width !== width) canvas.width = width;
    if (canvas.height !== height) canvas.height = height;
    context.setTransform(devicePixelRatio, 0, 0, devicePixelRatio, 0, 0);
    if (!picture) {
      context.clearRect(0, 0, stage.width, stage.height);
      return;
    }
    const before = beforePicture && until !== null ? { picture: beforePicture, until } : null;
    const draw = (isFine: boolean) => {
      drawFloor(context, stage, {
        picture,
        before,
        hatches,
        tile,
        lay: repeats,
        halfShift,
        edgeLines,
        look,
        isFine,
      });
      canvas.dataset.fine = isFine ? 'yes' : 'no';
    };
    draw(false);
    const stays = setTimeout(() => draw(true), FINE_AFTER_MS);
    return () => clearTimeout(stays);
  }, [picture, beforePicture, until, hatches, stage, tile, repeats, halfShift, edgeLines, look, canvasRef]);
}
