import { linearOfHex } from '../colour/hex.ts';
import { linearToOklab, oklabToLinear } from '../colour/oklab.ts';
import { mirrorImages } from '../masks/mask.ts';
import { visiting } from '../outline/fill.ts';
import type { Outline } from '../outline/outline.ts';
import type { Edges } from '../raster/edges.ts';
import type { Raster } from '../raster/raster.ts';
import type { Sides } from '../raster/sides.ts';
import { REACH as STAMP_REACH, sampled, stampOutline, stampTable } from '../stamps/stamp-table.ts';
import { coverOf } from '../strokes/cover.ts';
import { pressureOf } from '../strokes/pressure.ts';
import type { Steps } from '../work/steps.ts';
import { type Filling, filled } from './fill.ts';
import { turnedImages } from './images.ts';
import { coverPatch, roomOf, scaleOf, visitPatch, wayOf } from './patch.ts';
import { levelFor, type PictureStamp, stampAt } from './picture-stamp.ts';
import { type Print, printsOf } from './prints.ts';
import type { Paint, PaintStroke, Patch, Prints } from './stroke.ts';

/** What strokes can carry. */
export const PAINTED_CHANNELS = ['colour', 'roughness', 'metallic', 'height'] as const;
export type PaintedChannel = (typeof PAINTED_CHANNELS)[number];

/** What strokes carry into a channel: how much of what is painted has something for it, 0..1, and its values times that. */
export interface Carried {
  has: Float32Array;
  values: Float32Array[];
}

/** What was painted so far. */
export interface Canvas {
  /** How much of each pixel is painted, 0..1. */
  cover: Float32Array;
  carried: Partial<Record<PaintedChannel, Carried>>;
}

/** A canvas on which nothing is painted, for the cover and so many channels. */
export function emptyCanvas(count: number, channels: readonly PaintedChannel[]): Canvas {
  const plane = () => new Float32Array(count);
  const carried = channels.map((channel) => {
    const values = channel === 'colour' ? [plane(), plane(), plane()] : [plane()];
    return [channel, { has: plane(), values }];
  });
  return { cover: plane(), carried: Object.fromEntries(carried) };
}

/** A copy to paint on. */
export function copyOfCanvas({ cover, carried }: Canvas): Canvas {
  const copies = Object.entries(carried).map(([channel, { has, values }]) => [
    channel,
    { has: has.slice(), values: values.map((plane) => plane.slice()) },
  ]);
  return { cover: cover.slice(), carried: Object.fromEntries(copies) };
}

/** The channels that some of these strokes carry something for. */
export const channelsOf = (strokes: readonly PaintStroke[]): PaintedChannel[] =>
  PAINTED_CHANNELS.filter((channel) =>
    strokes.some(({ paint, prints }) => {
      return numbersOf(paint, channel, 0) !== null || (channel === 'colour' && prints?.ownColours === true);
    }),
  );

/** How far the lightness of a print strays at most, in OKLab. */
const TINT = 0.25;

/** What a stroke puts into a channel: linear RGB, or one value; null where it carries nothing for it. */
function numbersOf(
  paint: Paint | undefined,
  channel: PaintedChannel,
  tint: number,
): readonly number[] | null {
  if (!paint) return null;
  if (channel !== 'colour') {
    const value = channel === 'height' ? paint.heightMm : paint[channel];
    return value === undefined ? null : [value];
  }
  if (!paint.colour) return null;
  const rgb = linearOfHex(paint.colour);
  if (tint === 0) return rgb;
  const [lightness, a, b] = linearToOklab(...rgb);
  const held = Math.min(1, Math.max(0, lightness + TINT * tint));
  return oklabToLinear(held, a, b).map((value) => Math.min(1, Math.max(0, value)));
}

/** What is put down at once: how it covers, and the numbers it carries into each channel of the canvas. */
interface Layer {
  erase: boolean;
  /** Whether it adds to what is covered; else it covers at most as much as itself. */
  isOver: boolean;
  into: { channel: PaintedChannel; carried: Carried; numbers: readonly number[] | null }[];
}

function layerOf({ carried }: Canvas, stroke: PaintStroke, isOver: boolean, tint = 0): Layer {
  const into = Object.entries(carried).map(([name, own]) => {
    const channel = name as PaintedChannel;
    return { channel, carried: own, numbers: numbersOf(stroke.paint, channel, tint) };
  });
  return { erase: stroke.erase, isOver, into };
}

/** Puts a share of a layer on one pixel; `scale` is by how much a height that it carries counts there. */
function put({ cover }: Canvas, i: number, share: number, { erase, isOver, into }: Layer, scale = 1): void {
  const before = cover[i];
  if (erase) {
    cover[i] = before * (1 - share);
    return;
  }
  const after = isOver ? before + share * (1 - before) : Math.max(before, share);
  cover[i] = after;
  if (after === 0) return;
  for (const { channel, carried, numbers } of into) {
    const { has, values } = carried;
    // What a stroke does not carry stays as it was: as much of it, of a cover that may have grown.
    const t = numbers ? share / after : 1 - before / after;
    const counted = channel === 'height' ? scale : 1;
    has[i] += t * ((numbers ? 1 : 0) - has[i]);
    for (let c = 0; c < values.length; c++) {
      values[c][i] += t * ((numbers ? counted * numbers[c] : 0) - values[c][i]);
    }
  }
}

/** An index of a pixel mirrored about the middle of the tile. */
const mirrored =
  ({ width, height }: Sides, isAcross: boolean, isDown: boolean) =>
  (i: number): number => {
    const y = Math.floor(i / width);
    const x = i - y * width;
    return (isDown ? height - 1 - y : y) * width + (isAcross ? width - 1 - x : x);
  };

const wrapped = (at: number, n: number): number => ((at % n) + n) % n;

/** One band along the whole way of a stroke. */
function paintBand(canvas: Canvas, stroke: PaintStroke, { width, height, edges, indices }: Where): void {
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
function paintPatches(canvas: Canvas, stroke: PaintStroke & OnShape, where: Where): void {
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

/** The region of like colour about the first point of a stroke. */
function paintFill(canvas: Canvas, stroke: PaintStroke & { fill: Filling }, where: Where): void {
  const { width, height, ground, indices } = where;
  const { cover, carried } = canvas;
  const painted = carried.colour;
  /** What is painted, over what is below it. */
  const seen = (i: number): readonly [number, number, number] => {
    const [r, g, b] = ground ? ground.planes.map((plane) => plane[i]) : [0, 0, 0];
    if (!painted) return [r, g, b];
    const [share, part] = [cover[i], painted.has[i]];
    const over = (below: number, c: number) => below + share * (painted.values[c][i] - part * below);
    return [over(r, 0), over(g, 1), over(b, 2)];
  };
  const [u, v] = stroke.points[0];
  const at = (share: number, n: number) => wrapped(Math.floor(share * n), n);
  const start = at(v, height) * width + at(u, width);
  const { pixels, shares, lines } = filled(seen, start, stroke.fill, where);
  const flow = stroke.flow ?? 1;
  const whole = layerOf(canvas, stroke, true);
  const colour = numbersOf(stroke.paint, 'colour', 0);
  for (const [k, i] of pixels.entries()) {
    const line = lines[k];
    for (const index of indices) {
      if (!line || !colour || flow < 1 || stroke.erase) {
        put(canvas, index(i), flow * shares[k], whole);
        continue;
      }
      // Where a line covers a part of the pixel, that keeps its colour.
      const mixed = colour.map((own, c) => line[c] + shares[k] * (own - line[c]));
      const into = whole.into.map((one) => (one.channel === 'colour' ? { ...one, numbers: mixed } : one));
      put(canvas, index(i), 1, { ...whole, into });
    }
  }
}

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
function* paintPrints(canvas: Canvas, stroke: PaintStroke & { prints: Prints }, where: Where): Steps<void> {
  const { width, height, edges } = where;
  const whole = { width, height, edges, unitsAcross: width, unitsDown: height };
  for (const print of printsOf(stroke, stroke.prints, where)) {
    const spot = { x: print.x / width, y: print.y / height };
    const put = printing(canvas, print, stroke, where, 1);
    yield* visiting(whole, spot, outlineOf(print, stroke.prints), 1, put);
  }
}

/** Single prints along the way of a stroke over a shape, on each of its patches. */
function* printPatches(
  canvas: Canvas,
  stroke: PaintStroke & OnShape & { prints: Prints },
  where: Where,
): Steps<void> {
  for (const patch of stroke.patches) {
    const scale = scaleOf(patch, where);
    const { longer, pixel } = scale;
    const points = wayOf(patch, scale).map(({ x, y, share }) => [
      x / longer,
      y / longer,
      pressureOf(share),
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

/** Which the stroke was led over. */
interface OnShape {
  patches: readonly Patch[];
}

interface Where extends Sides {
  edges: Edges;
  /** The colour below what is painted, by which regions are filled. */
  ground: Raster | null;
  /** Pictures that are used as stamps, by their hashes. */
  stamps: ReadonlyMap<string, PictureStamp>;
  /** Which pixels one pixel stands for: itself and its mirror images. */
  indices: ((i: number) => number)[];
}

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
