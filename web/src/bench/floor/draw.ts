import type { Look, Size } from './geometry.ts';
import { drawHatches, type Hatches } from './hatch.ts';

export interface Scene {
  picture: HTMLCanvasElement;
  /** The picture before, and the share of the stage's width left of which it shows. */
  before: { picture: HTMLCanvasElement; until: number } | null;
  hatches: Hatches | null;
  tile: Size;
  lay: number;
  halfShift: boolean;
  edgeLines: boolean;
  look: Look;
  /** Reduced as well as can be, which takes a good part of a frame: for pictures that stay. */
  isFine: boolean;
}

/** Draws one picture as often as it is laid. */
function layPicture(
  context: CanvasRenderingContext2D,
  picture: HTMLCanvasElement,
  stage: Size,
  { tile, lay, halfShift, look, isFine }: Scene,
): void {
  const edgeY = (look.edge * tile.height) / tile.width;
  context.save();
  context.beginPath();
  context.rect(look.x, look.y, look.edge * lay, edgeY * lay);
  context.clip();
  // Enlarged pixels stay pixels; reduced ones are averaged.
  context.imageSmoothingEnabled = look.edge * devicePixelRatio < picture.width * 1.5;
  context.imageSmoothingQuality = isFine ? 'high' : 'low';
  const shift = halfShift ? 0.5 : 0;
  for (let j = 0; j < lay + (halfShift ? 1 : 0); j++) {
    for (let i = 0; i < lay + (halfShift ? 1 : 0); i++) {
      const x = look.x + (i - shift) * look.edge;
      const y = look.y + (j - shift) * edgeY;
      if (x > stage.width || y > stage.height || x + look.edge < 0 || y + edgeY < 0) continue;
      context.drawImage(picture, x, y, look.edge, edgeY);
    }
  }
  context.restore();
}

function drawEdges(context: CanvasRenderingContext2D, { tile, lay, halfShift, look }: Scene): void {
  const edgeY = (look.edge * tile.height) / tile.width;
  const shift = halfShift ? 0.5 : 0;
  context.save();
  context.setLineDash([5, 5]);
  context.lineWidth = 1;
  for (const [colour, offset] of [
    ['rgba(255,255,255,.75)', 0],
    ['rgba(0,0,0,.5)', 5],
  ] as const) {
    context.strokeStyle = colour;
    context.lineDashOffset = offset;
    context.beginPath();
    for (let k = halfShift ? 0 : 1; k < lay; k++) {
      const x = look.x + (k + shift) * look.edge;
      const y = look.y + (k + shift) * edgeY;
      context.moveTo(x, look.y);
      context.lineTo(x, look.y + edgeY * lay);
      context.moveTo(look.x, y);
      context.lineTo(look.x + look.edge * lay, y);
    }
    context.stroke();
  }
  context.restore();
}

/** Draws the laid tiles on a canvas whose context is scaled to CSS pixels. */
export function drawFloor(context: CanvasRenderingContext2D, stage: Size, scene: Scene): void {
  const { picture, before, hatches, lay, halfShift, edgeLines } = scene;
  context.clearRect(0, 0, stage.width, stage.height);
  layPicture(context, picture, stage, scene);
  if (hatches) drawHatches(context, hatches, (pen, mask) => layPicture(pen, mask, stage, scene));
  if (before) {
    context.save();
    context.beginPath();
    context.rect(0, 0, before.until * stage.width, stage.height);
    context.clip();
    layPicture(context, before.picture, stage, scene);
    context.restore();
  }
  if (edgeLines && (lay > 1 || halfShift)) drawEdges(context, scene);
}
