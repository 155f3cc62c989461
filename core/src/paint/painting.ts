import { linearOfHex } from '../colour/hex.ts';
import { linearToOklab, oklabToLinear } from '../colour/oklab.ts';
import { mirrorImages } from '../masks/mask.ts';
import { visiting } from '../outline/fill.ts';
import type { Outline } from '../outline/outline.ts';
import type { Edges } from '../raster/edges.ts';
import type { Sides } from '../raster/sides.ts';
import { sampled, stampOutline, stampTable } from '../stamps/stamp-table.ts';
import { coverOf } from '../strokes/cover.ts';
import type { Steps } from '../work/steps.ts';
import { turnedImages } from './images.ts';
import { type Print, printsOf } from './prints.ts';
import type { Paint, PaintStroke, Prints } from './stroke.ts';

/** What strokes can carry. */
export const PAINTED_CHANNELS = ['colour', 'roughness', 'metallic', 'height'] as const;
export type PaintedChannel = (typeof PAINTED_CHANNELS)[number];

/** What was painted so far. */
export interface Canvas {
  /** How much of each pixel is painted, 0..1. */
  cover: Float32Array;
  /** How much of that carries something for the channel, 0..1, and its values times that; nothing where only the cover is wanted. */
  has: Float32Array | null;
  values: Float32Array[];
}

/** A canvas on which nothing is painted; `channel` is left out where only the cover is wanted. */
export function emptyCanvas(count: number, channel?: PaintedChannel): Canvas {
  const plane = () => new Float32Array(count);
  if (!channel) return { cover: plane(), has: null, values: [] };
  return {
    cover: plane(),
    has: plane(),
    values: channel === 'colour' ? [plane(), plane(), plane()] : [plane()],
  };
}

/** A copy to paint on. */
export const copyOfCanvas = ({ cover, has, values }: Canvas): Canvas => ({
  cover: cover.slice(),
  has: has?.slice() ?? null,
  values: values.map((plane) => plane.slice()),
});

/** How far the lightness of a print strays at most, in OKLab. */
const TINT = 0.25;

/** What a stroke puts into a channel: linear RGB, or one value; null where it carries nothing for it. */
function carried(paint: Paint | undefined, channel: PaintedChannel, tint: number): readonly number[] | null {
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

/** What is put down at once: how it covers, and what it carries. */
interface Layer {
  erase: boolean;
  /** Whether it adds to what is covered; else it covers at most as much as itself. */
  isOver: boolean;
  carried: readonly number[] | null;
}

/** Puts a share of a layer on one pixel; `scale` is by how much what it carries counts there. */
function put({ cover, has, values }: Canvas, i: number, share: number, layer: Layer, scale = 1): void {
  const before = cover[i];
  if (layer.erase) {
    cover[i] = before * (1 - share);
    return;
  }
  const after = layer.isOver ? before + share * (1 - before) : Math.max(before, share);
  cover[i] = after;
  if (!has || after === 0) return;
  const t = share / after;
  has[i] += t * ((layer.carried ? 1 : 0) - has[i]);
  for (const [c, plane] of values.entries()) {
    plane[i] += t * ((layer.carried ? scale * layer.carried[c] : 0) - plane[i]);
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
function paintBand(canvas: Canvas, stroke: PaintStroke, channel: PaintedChannel, where: Where): void {
  const { width, height, edges, indices } = where;
  const cover = coverOf(stroke, width, height, edges);
  const layer: Layer = {
    erase: stroke.erase,
    isOver: stroke.flow !== undefined,
    carried: carried(stroke.paint, channel, 0),
  };
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

const disc = (radius: number): Outline => ({ reach: radius, distance: (x, y) => Math.hypot(x, y) - radius });

const outlineOf = ({ radius, degrees }: Print, { stamp }: Prints): Outline =>
  stamp ? stampOutline(stamp, radius, degrees) : disc(radius);

/** One print of a brush: its softness fades inwards from its border, and a stamp's height goes by its profile. */
function* paintPrint(
  canvas: Canvas,
  print: Print,
  stroke: PaintStroke & { prints: Prints },
  channel: PaintedChannel,
  where: Where,
): Steps<void> {
  const { width, height, edges, indices } = where;
  const { stamp } = stroke.prints;
  const soft = stroke.softness * print.radius;
  // A hard edge still takes one pixel to fade.
  const fade = Math.max(1, soft);
  const heights = stamp && channel === 'height' ? stampTable(stamp).height : null;
  const angle = (print.degrees * Math.PI) / 180;
  const [sin, cos] = [Math.sin(angle) / print.radius, Math.cos(angle) / print.radius];
  const layer: Layer = {
    erase: stroke.erase,
    isOver: true,
    carried: carried(stroke.paint, channel, print.tint),
  };
  const whole = { width, height, edges, unitsAcross: width, unitsDown: height };
  const spot = { x: print.x / width, y: print.y / height };
  yield* visiting(whole, spot, outlineOf(print, stroke.prints), 1, (i, distance, dx, dy) => {
    const t = Math.min(1, ((fade - soft) / 2 - distance) / fade);
    if (t <= 0) return;
    const share = (stroke.flow ?? 1) * t * t * (3 - 2 * t);
    const scale = heights ? sampled(heights, dx * cos + dy * sin, dy * cos - dx * sin) : 1;
    for (const index of indices) put(canvas, index(i), share, layer, scale);
  });
}

interface Where extends Sides {
  edges: Edges;
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
  channel: PaintedChannel,
  { width, height, edges }: Sides & { edges: Edges },
): Steps<void> {
  const sides = { width, height };
  for (const stroke of strokes) {
    const indices = mirrorImages(stroke.mirror).map(([across, down]) =>
      across || down ? mirrored(sides, across, down) : (i: number) => i,
    );
    const where = { ...sides, edges, indices };
    for (const image of turnedImages(stroke, sides)) {
      const { prints } = image;
      if (!prints) paintBand(canvas, image, channel, where);
      else {
        for (const print of printsOf(image, prints, sides)) {
          yield* paintPrint(canvas, print, { ...image, prints }, channel, where);
        }
      }
      yield;
    }
  }
}
