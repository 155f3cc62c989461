import { linearOfHex } from '../colour/hex.ts';
import { linearToOklab, oklabToLinear } from '../colour/oklab.ts';
import type { Edges } from '../raster/edges.ts';
import type { Raster } from '../raster/raster.ts';
import type { Sides } from '../raster/sides.ts';
import type { PictureStamp } from './picture-stamp.ts';
import type { Paint, PaintStroke, Patch } from './stroke.ts';

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
export function numbersOf(
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
export interface Layer {
  erase: boolean;
  /** Whether it adds to what is covered; else it covers at most as much as itself. */
  isOver: boolean;
  into: { channel: PaintedChannel; carried: Carried; numbers: readonly number[] | null }[];
}

export function layerOf({ carried }: Canvas, stroke: PaintStroke, isOver: boolean, tint = 0): Layer {
  const into = Object.entries(carried).map(([name, own]) => {
    const channel = name as PaintedChannel;
    return { channel, carried: own, numbers: numbersOf(stroke.paint, channel, tint) };
  });
  return { erase: stroke.erase, isOver, into };
}

/** Puts a share of a layer on one pixel; `scale` is by how much a height that it carries counts there. */
export function put(
  { cover }: Canvas,
  i: number,
  share: number,
  { erase, isOver, into }: Layer,
  scale = 1,
): void {
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

/** Where and with what a stroke is painted. */
export interface Where extends Sides {
  edges: Edges;
  /** The colour below what is painted, by which regions are filled. */
  ground: Raster | null;
  /** Pictures that are used as stamps, by their hashes. */
  stamps: ReadonlyMap<string, PictureStamp>;
  /** Which pixels one pixel stands for: itself and its mirror images. */
  indices: ((i: number) => number)[];
}

/** A stroke that was led over a shape. */
export interface OnShape {
  patches: readonly Patch[];
}
