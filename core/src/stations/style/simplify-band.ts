import { KERNELS } from '../../kernels/kernels.ts';
import type { ShockReach } from '../../kernels/shock-edges/reference.ts';
import { PLANES } from '../../memory/pool.ts';
import { type Band, bandParts } from '../../raster/band.ts';
import type { Edges } from '../../raster/edges.ts';
import type { Sides } from '../../raster/sides.ts';
import { task } from '../../team/task.ts';
import { padded } from './interleaved.ts';

/** Rows that are worked on at once, so that what is held beside the pixels stays small. */
const ROWS = 64;

/** What the rows of a simplified picture are made from. */
export interface Simplifying extends Sides {
  /** Four values a pixel, lightness first. */
  pixels: Float32Array;
  /** Two values a pixel: unit vectors along the shapes. */
  flow: Float32Array;
  edges: Edges;
}

/** Weights of steps along the flow, that of the pixel itself first, and how many pixels they are apart. */
export interface AlongFlow {
  weights: number[];
  step: number;
}

/** Smooths rows along the flow, into pixels, and a plane of their lightness, that all members see. */
export const smoothBand = task(
  'smoothBand',
  async (
    checkpoint,
    how: Simplifying,
    { weights, step }: AlongFlow,
    into: Float32Array,
    lightness: Float32Array,
    band: Band,
  ): Promise<void> => {
    const { width, edges } = how;
    const pad = Math.ceil((weights.length - 1) * step) + 2;
    const by = Float32Array.from(weights);
    for (const rows of bandParts(band, ROWS)) {
      const channels = padded(how.pixels, 4, how, edges, rows, pad);
      const flow = padded(how.flow, 2, how, edges, rows, pad);
      const field = { channels, flow, width, height: rows.to - rows.from, pad };
      const made = KERNELS.flowLines(field, by, step);
      into.set(made, 4 * rows.from * width);
      for (let i = 0, at = rows.from * width; i < made.length; i += 4, at++) lightness[at] = made[i];
      PLANES.give(channels, flow, made);
      await checkpoint((rows.to - band.from) / (band.to - band.from));
    }
  },
);

/** Sharpens the edges of rows across the flow, into pixels that all members see. */
export const shockBand = task(
  'shockBand',
  async (
    checkpoint,
    how: Simplifying & { signs: Float32Array },
    reach: ShockReach,
    into: Float32Array,
    band: Band,
  ): Promise<void> => {
    const { width, edges } = how;
    const pad = Math.ceil(reach.count * reach.step) + 2;
    for (const rows of bandParts(band, ROWS)) {
      const [first, last] = [rows.from * width, rows.to * width];
      const channels = padded(how.pixels, 4, how, edges, rows, pad);
      const flow = how.flow.subarray(2 * first, 2 * last);
      const signs = how.signs.subarray(first, last);
      const field = { channels, flow, signs, width, height: rows.to - rows.from, pad };
      const made = KERNELS.shockEdges(field, reach);
      into.set(made, 4 * first);
      PLANES.give(channels, made);
      await checkpoint((rows.to - band.from) / (band.to - band.from));
    }
  },
);
