import { blurring } from '../../../filters/gaussian.ts';
import { KERNELS } from '../../../kernels/kernels.ts';
import { PLANES } from '../../../memory/pool.ts';
import { luminance } from '../../../planes/luminance.ts';
import { connectedParts } from '../../../raster/connected.ts';
import { type Edges, edgeIndex } from '../../../raster/edges.ts';
import type { Raster } from '../../../raster/raster.ts';
import type { Sides } from '../../../raster/sides.ts';
import { findingPercentiles } from '../../../statistics/histogram.ts';
import type { Steps } from '../../../work/steps.ts';

/** Scales at which lines are sought, σ in pixels at 512. */
const SCALES = [1.5, 2.5, 4, 6.5];
/** Share of the tile that may be line. */
const LINE_PERCENTILE = 82;
/** A connected part of the net is kept from this share of the tile on. */
const KEPT = 0.004;
/** Areas of closed faces, as shares of the tile. */
export const SMALLEST_FACE = 0.002;
export const LARGEST_FACE = 0.2;

/** A thin net of lines, such as joints, and how clearly it closes faces. */
export interface Net {
  /** 1 on the net, 0 elsewhere. */
  mask: Uint8Array;
  /** Share of the largest connected part × share of the rest that lies in closed faces, 0…1. */
  score: number;
  /** Median area of the closed faces, as a share of the tile; null without any. */
  faceArea: number | null;
}

/** The nets of dark and of light lines. */
export interface Nets {
  dark: Net;
  light: Net;
}

/** The scores from which a net is one. */
export const CLEAR_NET = 0.25;

/** The net of where a plane of line strengths is highest. */
function* netOf(lines: Float32Array, sides: Sides, edges: Edges): Steps<Net> {
  const count = lines.length;
  const [least] = yield* findingPercentiles(lines, [LINE_PERCENTILE]);
  const mask = new Uint8Array(count);
  for (let i = 0; i < count; i++) mask[i] = lines[i] > Math.max(0, least) ? 1 : 0;
  yield;
  const net = connectedParts(mask, 1, sides, edges, true);
  let [kept, largest] = [0, 0];
  for (const size of net.sizes) {
    if (size <= KEPT * count) continue;
    kept += size;
    largest = Math.max(largest, size);
  }
  for (let i = 0; i < count; i++) {
    if (mask[i] === 1 && net.sizes[net.labels[i]] <= KEPT * count) mask[i] = 0;
  }
  yield;
  const rest = connectedParts(mask, 0, sides, edges, false);
  const faces = rest.sizes.filter((size) => size >= SMALLEST_FACE * count && size <= LARGEST_FACE * count);
  const inFaces = faces.reduce((sum, size) => sum + size, 0);
  faces.sort((a, b) => a - b);
  return {
    mask,
    score: kept === 0 || kept === count ? 0 : (largest / kept) * (inFaces / (count - kept)),
    faceArea: faces.length > 0 ? faces[faces.length >> 1] / count : null,
  };
}

/**
 * The nets of thin dark and of thin light lines in a tile's grey (`grey`: perceptual lightness, one value a pixel): the larger
 * eigenvalue of the Hessian less the size of the other, normalised by scale (Lindeberg 1998), at the best of four scales.
 */
export function* findNets(grey: Float32Array, sides: Sides, edges: Edges): Steps<Nets> {
  const { width, height } = sides;
  const dark = new Float32Array(grey.length);
  const light = new Float32Array(grey.length);
  for (const scale of SCALES) {
    const sigma = (scale * Math.max(width, height)) / 512;
    const soft = yield* blurring(grey, width, height, sigma, edges);
    yield;
    addLines(soft, sides, edges, sigma * sigma, dark, light);
    PLANES.give(soft);
    yield;
  }
  return { dark: yield* netOf(dark, sides, edges), light: yield* netOf(light, sides, edges) };
}

/** Raises line strengths to those of one scale, of which `soft` is the picture. */
function addLines(
  soft: Float32Array,
  { width, height }: Sides,
  edges: Edges,
  weight: number,
  dark: Float32Array,
  light: Float32Array,
): void {
  for (let y = 0; y < height; y++) {
    const above = edgeIndex(y - 1, height, edges.y) * width;
    const row = y * width;
    const below = edgeIndex(y + 1, height, edges.y) * width;
    for (let x = 0; x < width; x++) {
      const left = edgeIndex(x - 1, width, edges.x);
      const right = edgeIndex(x + 1, width, edges.x);
      const here = 2 * soft[row + x];
      const xx = soft[row + left] + soft[row + right] - here;
      const yy = soft[above + x] + soft[below + x] - here;
      const xy = (soft[above + left] + soft[below + right] - soft[above + right] - soft[below + left]) / 4;
      const mean = (xx + yy) / 2;
      const apart = Math.hypot((xx - yy) / 2, xy);
      const [most, least] = [mean + apart, mean - apart];
      dark[row + x] = Math.max(dark[row + x], weight * (most - Math.abs(least)));
      light[row + x] = Math.max(light[row + x], weight * (-least - Math.abs(most)));
    }
  }
}

/** The nets of a picture's lines: of what the eye sees of its luminance. */
export const findNetsOf = (picture: Raster, edges: Edges): Steps<Nets> =>
  findNets(KERNELS.encodeSrgbPlane(luminance(picture)), picture, edges);

/** The net that closes faces best. */
export interface FoundNet {
  lines: 'dark' | 'light';
  /** How clearly it does, 0…1. */
  score: number;
  /** Whether that is clear enough to offer it. */
  isClear: boolean;
}

/** Which of both nets closes faces best, and how clearly. */
export function bestNet({ dark, light }: Nets): FoundNet {
  const lines = light.score > dark.score ? 'light' : 'dark';
  const score = Math.max(dark.score, light.score);
  return { lines, score, isClear: score >= CLEAR_NET };
}
