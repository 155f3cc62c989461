import { visiting } from '../outline/fill.ts';
import type { Outline } from '../outline/outline.ts';
import { REACH as STAMP_REACH, sampled, stampOutline, stampTable } from '../stamps/stamp-table.ts';
import { pressureOf } from '../strokes/pressure.ts';
import type { Steps } from '../work/steps.ts';
import { type Canvas, layerOf, type OnShape, put, type Where } from './canvas.ts';
import { roomOf, scaleOf, visitPatch, wayOf } from './patch.ts';
import { levelFor, type PictureStamp, stampAt } from './picture-stamp.ts';
import { type Print, printsOf } from './prints.ts';
import type { PaintStroke, Prints } from './stroke.ts';

const disc = (radius: number): Outline => ({ reach: radius, distance: (x, y) => Math.hypot(x, y) - radius });

/** The square that a picture lies in, whichever way it is turned: it says itself what it covers. */
const everywhere = (radius: number): Outline => ({ reach: Math.SQRT2 * radius, distance: () => 0 });

const outlineOf = ({ radius, degrees }: Print, { stamp, picture }: Prints): Outline => {
  if (picture) return everywhere(radius);
  return stamp ? stampOutline(stamp, radius, degrees) : disc(radius);
};

/** Puts one print of a picture on pixels that are visited. */
function printingPicture(
  canvas: Canvas,
  print: Print,
  stroke: PaintStroke & { prints: Prints },
  { indices }: Where,
  picture: PictureStamp,
): (i: number, distance: number, dx: number, dy: number) => void {
  const level = levelFor(picture, print.radius);
  const angle = (print.degrees * Math.PI) / 180;
  const [sin, cos] = [Math.sin(angle) / print.radius, Math.cos(angle) / print.radius];
  const layer = layerOf(canvas, stroke, true, print.tint);
  const own = [0, 0, 0];
  const coloured = stroke.prints.ownColours
    ? { ...layer, into: layer.into.map((one) => (one.channel === 'colour' ? { ...one, numbers: own } : one)) }
    : layer;
  const found = new Float64Array(4);
  return (i, _distance, dx, dy) => {
    stampAt(level, dx * cos + dy * sin, dy * cos - dx * sin, found);
    if (found[0] <= 0) return;
    for (let c = 0; c < 3; c++) own[c] = Math.min(1, found[c + 1] / found[0]);
    for (const index of indices) put(canvas, index(i), (stroke.flow ?? 1) * found[0], coloured);
  };
}

/** Puts one print of a brush on pixels that are visited: its softness fades inwards from its border, and a stamp's height goes by its profile. */
function printing(
  canvas: Canvas,
  print: Print,
  stroke: PaintStroke & { prints: Prints },
  where: Where,
  pixel: number,
): (i: number, distance: number, dx: number, dy: number) => void {
  const { stamp, picture } = stroke.prints;
  const stampOfPicture = picture && where.stamps.get(picture.sha256);
  if (stampOfPicture) return printingPicture(canvas, print, stroke, where, stampOfPicture);
  const soft = stroke.softness * print.radius;
  // A hard edge still takes one pixel to fade.
  const fade = Math.max(pixel, soft);
  const heights = stamp && canvas.carried.height ? stampTable(stamp).height : null;
  const angle = (print.degrees * Math.PI) / 180;
  const [sin, cos] = [Math.sin(angle) / print.radius, Math.cos(angle) / print.radius];
  const layer = layerOf(canvas, stroke, true, print.tint);
  return (i, distance, dx, dy) => {
    const t = Math.min(1, ((fade - soft) / 2 - distance) / fade);
    if (t <= 0) return;
    const share = (stroke.flow ?? 1) * t * t * (3 - 2 * t);
    const scale = heights ? sampled(heights, dx * cos + dy * sin, dy * cos - dx * sin) : 1;
    for (const index of where.indices) put(canvas, index(i), share, layer, scale);
  };
}

/** Single prints along the way of a stroke on the tile. */
export function* paintPrints(
  canvas: Canvas,
  stroke: PaintStroke & { prints: Prints },
  where: Where,
): Steps<void> {
  const { width, height, edges } = where;
  const whole = { width, height, edges, unitsAcross: width, unitsDown: height };
  for (const print of printsOf(stroke, stroke.prints, where)) {
    const spot = { x: print.x / width, y: print.y / height };
    const put = printing(canvas, print, stroke, where, 1);
    yield* visiting(whole, spot, outlineOf(print, stroke.prints), 1, put);
  }
}

/** Single prints along the way of a stroke over a shape, on each of its patches. */
export function* printPatches(
  canvas: Canvas,
  stroke: PaintStroke & OnShape & { prints: Prints },
  where: Where,
): Steps<void> {
  for (const patch of stroke.patches) {
    const scale = scaleOf(patch, where);
    const { longer, pixel } = scale;
    const points = wayOf(patch, scale).map(({ x, y, share, lean }) => [
      x / longer,
      y / longer,
      pressureOf(share),
      lean,
    ]) as PaintStroke['points'];
    // What strays, and corners of a stamp, lie further out than the brush.
    const reach = (Math.SQRT2 * STAMP_REACH + stroke.prints.stray) * stroke.radius;
    const room = roomOf(patch, reach, where);
    const square = { width: longer, height: longer };
    for (const print of printsOf({ ...stroke, points }, stroke.prints, square, longer * patch.along)) {
      const outline = outlineOf(print, stroke.prints);
      const far = outline.reach + pixel;
      const put = printing(canvas, print, stroke, where, pixel);
      const box = [print.x - far, print.y - far, print.x + far, print.y + far] as const;
      visitPatch(patch, room, where, box, (i, x, y) => {
        const [dx, dy] = [x - print.x, y - print.y];
        put(i, outline.distance(dx, dy), dx, dy);
      });
      yield;
    }
  }
}
