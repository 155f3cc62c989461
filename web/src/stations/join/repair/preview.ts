import type { BrushRepair } from '@zesty-tile/core';
import type { Size } from '../../../bench/floor/geometry.ts';
import { traceStroke } from '../../../bench/floor/trace.ts';
import { type BrushPlane, longerEdge, stageAt } from '../../../bench/floor/use-brush.ts';

let maskCanvas: HTMLCanvasElement | null = null;

/** Shows at once what a stroke will lay: the picture from where it is taken, within the stroke. */
export function previewStroke(
  context: CanvasRenderingContext2D,
  picture: HTMLCanvasElement,
  plane: BrushPlane,
  stroke: BrushRepair,
  lay: number,
  stage: Size,
): void {
  maskCanvas ??= document.createElement('canvas');
  maskCanvas.width = stage.width;
  maskCanvas.height = stage.height;
  const mask = maskCanvas.getContext('2d');
  if (!mask) return;
  const { look, tile } = plane;
  const edgeY = (look.edge * tile.height) / tile.width;
  mask.filter =
    stroke.softness > 0 ? `blur(${(stroke.softness * stroke.radius * longerEdge(plane)) / 3}px)` : 'none';
  traceStroke(mask, plane, stroke, -2, lay + 1);
  mask.filter = 'none';
  mask.globalCompositeOperation = 'source-in';
  const [moveX, moveY] = [stroke.offset[0] * look.edge, stroke.offset[1] * edgeY];
  // One drawing may not follow another under source-in: the laid picture is a pattern.
  const pattern = mask.createPattern(picture, 'repeat');
  if (!pattern) return;
  const [x, y] = stageAt(plane, 0, 0);
  const matrix = new DOMMatrix()
    .translate(x - moveX, y - moveY)
    .scale(look.edge / picture.width, edgeY / picture.height);
  pattern.setTransform(matrix);
  mask.fillStyle = pattern;
  mask.fillRect(0, 0, stage.width, stage.height);
  mask.globalCompositeOperation = 'source-over';
  context.save();
  context.beginPath();
  context.rect(look.x, look.y, look.edge * lay, edgeY * lay);
  context.clip();
  context.globalAlpha = stroke.opacity;
  context.drawImage(maskCanvas, 0, 0);
  context.restore();
}
