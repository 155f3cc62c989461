import type { Raster } from '../../raster/raster.ts';
import { median } from '../../raster/statistics.ts';
import { solve } from './solve.ts';

/** The light of one channel: log light = Σ cₖ·(1, u, v, u², uv, v²) over crop coordinates −1..1. */
export type LightField = number[];

const BLOCKS = 48;
const ROUNDS = 5;
export const LOG_FLOOR = 0.01;
const TUKEY = 2.5 * 1.4826;

/** The six terms of the polynomial at crop coordinates (u, v). */
export const terms = (u: number, v: number): number[] => [1, u, v, u * u, u * v, v * v];

/** Log light at (u, v) less its mean over the crop. */
export function logLight(field: LightField, u: number, v: number): number {
  // Over −1..1 the means of u² and v² are 1/3, of the odd terms 0.
  const [, a, b, c, d, e] = field;
  return a * u + b * v + c * (u * u - 1 / 3) + d * u * v + e * (v * v - 1 / 3);
}

/** Where the crop lies in a picture with margins, all in pixels. */
export interface CropBox {
  left: number;
  top: number;
  size: number;
}

/**
 * Broad light of each channel: robust polynomial of order 2 through the logs of 48 × 48 block means,
 * reweighted by Tukey's bisquare (Beaton & Tukey 1974), so that a stain does not bend it.
 * Linear input; the log is of v + 0.01.
 */
export function fitLight(picture: Raster, box: CropBox): LightField[] {
  const { width, height } = picture;
  return picture.planes.map((plane) => {
    const rows: number[][] = [];
    const values: number[] = [];
    for (let j = 0; j < BLOCKS; j++) {
      const y0 = Math.floor((j * height) / BLOCKS);
      const y1 = Math.max(y0 + 1, Math.floor(((j + 1) * height) / BLOCKS));
      for (let i = 0; i < BLOCKS; i++) {
        const x0 = Math.floor((i * width) / BLOCKS);
        const x1 = Math.max(x0 + 1, Math.floor(((i + 1) * width) / BLOCKS));
        let sum = 0;
        for (let y = y0; y < y1; y++) for (let x = x0; x < x1; x++) sum += plane[y * width + x];
        values.push(Math.log(sum / ((x1 - x0) * (y1 - y0)) + LOG_FLOOR));
        const u = (2 * ((x0 + x1) / 2 - box.left)) / box.size - 1;
        const v = (2 * ((y0 + y1) / 2 - box.top)) / box.size - 1;
        rows.push(terms(u, v));
      }
    }
    let weights = rows.map(() => 1);
    let field = solve(rows, values, weights);
    for (let round = 0; round < ROUNDS; round++) {
      const misses = rows.map((row, k) => values[k] - row.reduce((sum, a, n) => sum + a * field[n], 0));
      const scale = TUKEY * median(misses.map(Math.abs)) + 1e-6;
      weights = misses.map((miss) => (Math.abs(miss) < scale ? (1 - (miss / scale) ** 2) ** 2 : 0));
      field = solve(rows, values, weights);
    }
    return field;
  });
}
