import {
  mirrorImages,
  type PaintStroke,
  type Print,
  printsOf,
  STAMP_REACH,
  type StampName,
  stampCover,
  turnedImages,
} from '@zesty-tile/core';
import { traceStroke } from '../../../bench/floor/trace.ts';
import { type BrushPlane, longerEdge, stageAt } from '../../../bench/floor/use-brush.ts';

/** Pixels of a stamp's side, drawn once. */
const STAMP_SIDE = 96;
/** What erasing looks like until the tile follows: what is under it is not known here. */
const ERASED = '#e8e8e8';
/** What strokes without a colour look like. */
const PLAIN = '#ffb300';

/** The colour that strokes are drawn in until the tile follows. */
export const previewColour = (erase: boolean, colour: string | undefined): string =>
  erase ? ERASED : (colour ?? PLAIN);

const kept = new Map<string, HTMLCanvasElement>();

/** A stamp in a colour. */
function stampIn(name: StampName, colour: string): HTMLCanvasElement {
  const key = `${name} ${colour}`;
  const known = kept.get(key);
  if (known) return known;
  const canvas = document.createElement('canvas');
  canvas.width = STAMP_SIDE;
  canvas.height = STAMP_SIDE;
  const context = canvas.getContext('2d')!;
  const picture = new ImageData(STAMP_SIDE, STAMP_SIDE);
  const cover = stampCover(name, STAMP_SIDE);
  for (let i = 0; i < cover.length; i++) picture.data[4 * i + 3] = 255 * cover[i];
  context.putImageData(picture, 0, 0);
  context.globalCompositeOperation = 'source-in';
  context.fillStyle = colour;
  context.fillRect(0, 0, STAMP_SIDE, STAMP_SIDE);
  // Few stamps and colours are used at a time.
  if (kept.size > 40) kept.clear();
  kept.set(key, canvas);
  return canvas;
}

/** A stamp of a picture as it is, or in one colour; null until it is there. */
function pictureIn({ sha256 }: { sha256: string }, colour: string | null): HTMLCanvasElement | null {
  const key = `${sha256} ${colour ?? ''}`;
  const known = kept.get(key);
  if (known) return known.width > 0 ? known : null;
  const canvas = document.createElement('canvas');
  canvas.width = 0;
  kept.set(key, canvas);
  const image = new Image();
  image.src = `/api/sources/${sha256}/picture?edge=${2 * STAMP_SIDE}`;
  void image.decode().then(() => {
    const longer = Math.max(image.width, image.height);
    canvas.width = longer;
    canvas.height = longer;
    const context = canvas.getContext('2d')!;
    context.drawImage(image, (longer - image.width) / 2, (longer - image.height) / 2);
    if (!colour) return;
    context.globalCompositeOperation = 'source-in';
    context.fillStyle = colour;
    context.fillRect(0, 0, longer, longer);
  });
  return null;
}

/** What a print is drawn with, and how far that reaches in radii. */
export interface DrawnStamp {
  canvas: HTMLCanvasElement;
  reach: number;
}

/** What each print of a stroke is drawn with; null where it is round. */
export function stampFor(
  { stamp, picture, ownColours }: NonNullable<PaintStroke['prints']>,
  colour: string,
): DrawnStamp | null {
  if (stamp) return { canvas: stampIn(stamp, colour), reach: STAMP_REACH };
  const canvas = picture && pictureIn(picture, ownColours ? null : colour);
  return canvas ? { canvas, reach: 1 } : null;
}

export interface Stage {
  plane: BrushPlane;
  lay: number;
  /** Whether strokes come in again over the edges of each axis. */
  wraps: { x: boolean; y: boolean };
}

/** How much of a stroke is drawn: its points, and for each of its images its prints. */
export interface Drawn {
  points: number;
  prints: number[];
}

function drawPrint(
  context: CanvasRenderingContext2D,
  { x, y, radius, degrees }: Print,
  stamp: DrawnStamp | null,
): void {
  if (!stamp) {
    context.beginPath();
    context.arc(x, y, radius, 0, 2 * Math.PI);
    context.fill();
    return;
  }
  context.save();
  context.translate(x, y);
  context.rotate((degrees * Math.PI) / 180);
  const reach = stamp.reach * radius;
  context.drawImage(stamp.canvas, -reach, -reach, 2 * reach, 2 * reach);
  context.restore();
}

/** What of the first tile a piece of a stroke covers: from the least to the largest places, in CSS pixels from its corner. */
interface Box {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** A box about places, by how far something reaches from them. */
function boxAbout(places: readonly { x: number; y: number }[], reach: number): Box {
  const [xs, ys] = [places.map(({ x }) => x), places.map(({ y }) => y)];
  return {
    left: Math.min(...xs) - reach,
    top: Math.min(...ys) - reach,
    right: Math.max(...xs) + reach,
    bottom: Math.max(...ys) + reach,
  };
}

/** For which of the tiles along an axis a stretch of the first, mirrored or not, is seen. */
function placesSeen(
  [from, to]: readonly [number, number],
  isMirrored: boolean,
  edge: number,
  { plane, lay }: Stage,
  wraps: boolean,
): number[] {
  if (to < from) return [];
  const [low, high] = (isMirrored ? [edge - to, edge - from] : [from, to]).map((at) => at / edge);
  const shift = plane.halfShift ? 0.5 : 0;
  const first = Math.floor(shift - high) + 1;
  const last = Math.ceil(lay + shift - low) - 1;
  const [least, most] = wraps ? [first, last] : [Math.max(0, first), Math.min(lay - 1, last)];
  return Array.from({ length: Math.max(0, most - least + 1) }, (_, k) => least + k);
}

/** Draws over every tile where a piece of a stroke is seen, each clipped to itself where its edges are not joined, and mirrored as asked. */
function overTiles(
  context: CanvasRenderingContext2D,
  stroke: PaintStroke,
  stage: Stage,
  box: Box,
  draw: () => void,
): void {
  const { look, tile } = stage.plane;
  const edgeY = (look.edge * tile.height) / tile.width;
  for (const [across, down] of mirrorImages(stroke.mirror)) {
    const columns = placesSeen([box.left, box.right], across, look.edge, stage, stage.wraps.x);
    const rows = placesSeen([box.top, box.bottom], down, edgeY, stage, stage.wraps.y);
    for (const [i, j] of rows.flatMap((j) => columns.map((i) => [i, j]))) {
      context.save();
      const [x, y] = stageAt(stage.plane, i, j);
      if (!stage.wraps.x || !stage.wraps.y) {
        context.beginPath();
        context.rect(
          stage.wraps.x ? look.x : x,
          stage.wraps.y ? look.y : y,
          stage.wraps.x ? look.edge * stage.lay : look.edge,
          stage.wraps.y ? edgeY * stage.lay : edgeY,
        );
        context.clip();
      }
      context.translate(x, y);
      if (across) context.transform(-1, 0, 0, 1, look.edge, 0);
      if (down) context.transform(1, 0, 0, -1, 0, edgeY);
      draw();
      context.restore();
    }
  }
}

/** Draws the part of a stroke that is not drawn yet on every repeat of the tile, and returns how much is drawn now. */
export function drawStroke(
  context: CanvasRenderingContext2D,
  stroke: PaintStroke,
  stage: Stage,
  before: Drawn = { points: 0, prints: [] },
): Drawn {
  // Where a region ends is known only once it is computed; a stroke over a shape is drawn there.
  if (stroke.fill || stroke.patches) return before;
  const { plane, lay } = stage;
  const { look, tile } = plane;
  const edgeY = (look.edge * tile.height) / tile.width;
  const colour = previewColour(stroke.erase, stroke.paint?.colour);
  const images = turnedImages(stroke, { width: look.edge, height: edgeY });
  const prints: number[] = [];
  context.save();
  context.beginPath();
  context.rect(look.x, look.y, look.edge * lay, edgeY * lay);
  context.clip();
  context.strokeStyle = colour;
  context.fillStyle = colour;
  for (const [k, image] of images.entries()) {
    if (!image.prints) {
      const points = image.points.slice(Math.max(0, before.points - 1));
      // Traced where the first tile lies at the origin.
      const own = { ...plane, look: { ...look, x: 0, y: 0 }, halfShift: false };
      const places = points.map(([u, v]) => ({ x: u * look.edge, y: v * edgeY }));
      const box = boxAbout(places, radiusOf(plane, image.radius) + 1);
      overTiles(context, stroke, stage, box, () => traceStroke(context, own, { ...image, points }, 0, 0));
      continue;
    }
    // Which way a print points along a stroke is known from its second point on.
    const isKnown = image.prints.turning !== 'along' || image.points.length > 1;
    const all = isKnown ? printsOf(image, image.prints, { width: look.edge, height: edgeY }) : [];
    const fresh = all.slice(before.prints[k] ?? 0);
    const stamp = stampFor(image.prints, colour);
    const reach = (stamp?.reach ?? 1) * Math.SQRT2;
    const box = boxAbout(fresh, reach * Math.max(0, ...fresh.map(({ radius }) => radius)));
    overTiles(context, stroke, stage, box, () => {
      for (const print of fresh) drawPrint(context, print, stamp);
    });
    prints[k] = all.length;
  }
  context.restore();
  return { points: stroke.points.length, prints };
}

/** CSS pixels of a brush’s radius. */
export const radiusOf = (plane: BrushPlane, radius: number): number => radius * longerEdge(plane);
