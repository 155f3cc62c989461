import { gaussian } from '../../filters/gaussian.ts';
import { type Edges, edgeIndex } from '../../raster/edges.ts';
import { histogramPercentiles } from '../../raster/histogram.ts';
import { mapped } from '../../raster/mapped.ts';
import type { Raster } from '../../raster/raster.ts';
import { resizeArea } from '../../raster/resize.ts';

/** A spot that will be seen again and again where the tile repeats. */
export interface Repeat {
  /** Its middle, as shares of the width and height. */
  x: number;
  y: number;
  /** Its size (σ) as a share of the shorter edge. */
  sigma: number;
  /** How far it stands out, in medians of its band. */
  strength: number;
}

const WORKING = 256;
const FINEST = 1 / 64;
const BANDS = 7;
const STEP = Math.SQRT2;
const LOG_FLOOR = 0.01;
/** A log contrast this small is never seen. */
const BASE = 0.001;
/** In normal noise a value of six medians is one of four deviations: chance alone gives hardly any. */
const STANDS_OUT = 6.5;
const WEIGHTS = [1, 0.7, 0.5];

/** Log-opponent planes of a linear colour picture: lightness, red against green, yellow against blue. */
function opponents(picture: Raster): Float32Array[] {
  const [r, g, b] = picture.planes.map((plane) => mapped(plane, (v) => Math.log(Math.max(0, v) + LOG_FLOOR)));
  return [
    mapped(r, (v, i) => (v + g[i] + b[i]) / 3),
    mapped(r, (v, i) => v - g[i]),
    mapped(r, (v, i) => (v + g[i]) / 2 - b[i]),
  ];
}

/** Strength of every pixel in every band: |difference of Gaussians| over the band's median, strongest plane. */
async function strengths(
  picture: Raster,
  edges: Edges,
  breathe: (done: number) => Promise<void>,
): Promise<Float32Array[]> {
  const { width, height } = picture;
  const short = Math.min(width, height);
  const out = Array.from({ length: BANDS }, () => new Float32Array(width * height));
  for (const [c, plane] of opponents(picture).entries()) {
    let finer = gaussian(plane, width, height, FINEST * short, edges);
    for (let k = 0; k < BANDS; k++) {
      const coarser = gaussian(plane, width, height, FINEST * short * STEP ** (k + 1), edges);
      const band = mapped(finer, (v, i) => WEIGHTS[c] * Math.abs(v - coarser[i]));
      const usual = histogramPercentiles(band, [50])[0] + BASE;
      for (let i = 0; i < band.length; i++) out[k][i] = Math.max(out[k][i], band[i] / usual);
      finer = coarser;
      await breathe((c * BANDS + k + 1) / (3 * BANDS));
    }
  }
  return out;
}

/**
 * Spots of a linear colour tile that stand out from it, strongest first: maxima over place and size of
 * differences of Gaussians in log-opponent colour, on the torus (scale-space blobs, Lindeberg 1998).
 */
export async function findRepeats(
  picture: Raster,
  edges: Edges,
  breathe: (done: number) => Promise<void> = async () => {},
): Promise<Repeat[]> {
  const scale = Math.min(1, WORKING / Math.min(picture.width, picture.height));
  const width = Math.max(1, Math.round(picture.width * scale));
  const height = Math.max(1, Math.round(picture.height * scale));
  const bands = await strengths(resizeArea(picture, width, height), edges, breathe);
  const found: Repeat[] = [];
  for (let k = 0; k < BANDS; k++) {
    for (let y = 0; y < height; y++) {
      for (let x = 0; x < width; x++) {
        const here = bands[k][y * width + x];
        if (here < STANDS_OUT || !isSummit(bands, k, x, y, width, height, edges, here)) continue;
        found.push({
          x: (x + 0.5) / width,
          y: (y + 0.5) / height,
          sigma: FINEST * STEP ** k,
          strength: here,
        });
      }
    }
  }
  return found.sort((a, b) => b.strength - a.strength);
}

/**
 * How much of a tile will be seen repeating, as one figure: the sum of what its spots stand out by beyond what chance
 * gives, in multiples of that. 0 where nothing does.
 */
export const repeatFigure = (repeats: readonly Repeat[]): number =>
  repeats.reduce((sum, { strength }) => sum + strength / STANDS_OUT, 0);

function isSummit(
  bands: Float32Array[],
  k: number,
  x: number,
  y: number,
  width: number,
  height: number,
  edges: Edges,
  here: number,
): boolean {
  for (let n = Math.max(0, k - 1); n <= Math.min(BANDS - 1, k + 1); n++) {
    for (let dy = -1; dy <= 1; dy++) {
      const row = edgeIndex(y + dy, height, edges.y) * width;
      for (let dx = -1; dx <= 1; dx++) {
        if (n === k && dx === 0 && dy === 0) continue;
        if (bands[n][row + edgeIndex(x + dx, width, edges.x)] >= here) return false;
      }
    }
  }
  return true;
}
