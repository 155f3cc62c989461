import { type Edges, edgeIndex } from './edges.ts';
import { Raster } from './raster.ts';
import { resampleUpright } from './resize.ts';

/** Bilinear value of a plane at (x, y), in pixels with whole numbers at pixel centres. */
export function sampleBilinear(
  plane: Float32Array,
  width: number,
  height: number,
  x: number,
  y: number,
  edges: Edges,
): number {
  const x0 = Math.floor(x);
  const y0 = Math.floor(y);
  const fx = x - x0;
  const fy = y - y0;
  const xa = edgeIndex(x0, width, edges.x);
  const xb = edgeIndex(x0 + 1, width, edges.x);
  const ya = edgeIndex(y0, height, edges.y) * width;
  const yb = edgeIndex(y0 + 1, height, edges.y) * width;
  const top = plane[ya + xa] * (1 - fx) + plane[ya + xb] * fx;
  const bottom = plane[yb + xa] * (1 - fx) + plane[yb + xb] * fx;
  return top * (1 - fy) + bottom * fy;
}

const LOBES = 3;
const STEPS = 1024;
const KERNEL = (() => {
  const table = new Float32Array(LOBES * STEPS + 2);
  for (let i = 0; i < table.length; i++) {
    const p = (Math.PI * i) / STEPS;
    table[i] = i === 0 ? 1 : i >= LOBES * STEPS ? 0 : (LOBES * Math.sin(p) * Math.sin(p / LOBES)) / (p * p);
  }
  return table;
})();

/** Where output pixel (0, 0) lies in the input, and the step for one pixel right and one down. */
export interface Affine {
  originX: number;
  originY: number;
  rightX: number;
  rightY: number;
  downX: number;
  downY: number;
}

/**
 * Resample a raster along an affine grid, one pass, Lanczos of three lobes stretched by `stretch`
 * (≥ 1 when the grid is coarser than the picture, so that nothing aliases).
 * `breathe` is awaited between blocks of rows.
 */
export async function resampleAffine(
  raster: Raster,
  width: number,
  height: number,
  grid: Affine,
  stretch: number,
  edges: Edges,
  breathe: (done: number) => Promise<void>,
): Promise<Raster> {
  if (grid.rightY === 0 && grid.downX === 0) {
    await breathe(0);
    const { originX, originY, rightX: stepX, downY: stepY } = grid;
    return resampleUpright(raster, { originX, originY, stepX, stepY, width, height }, stretch, edges);
  }
  const out = Raster.filled(width, height, raster.channels);
  const scale = Math.max(1, stretch);
  const reach = LOBES * scale;
  const taps = Math.ceil(2 * reach) + 1;
  const wx = new Float32Array(taps);
  const wy = new Float32Array(taps);
  const ix = new Int32Array(taps);
  const iy = new Int32Array(taps);
  const fill = (centre: number, weights: Float32Array, index: Int32Array, n: number, edge: Edges['x']) => {
    const start = Math.ceil(centre - reach);
    let sum = 0;
    for (let k = 0; k < taps; k++) {
      const at = (Math.abs(start + k - centre) / scale) * STEPS;
      const low = Math.floor(at);
      const w = at >= LOBES * STEPS ? 0 : KERNEL[low] + (KERNEL[low + 1] - KERNEL[low]) * (at - low);
      weights[k] = w;
      index[k] = edgeIndex(start + k, n, edge);
      sum += w;
    }
    for (let k = 0; k < taps; k++) weights[k] /= sum;
  };
  for (let y = 0; y < height; y++) {
    if ((y & 31) === 0) await breathe(y / height);
    for (let x = 0; x < width; x++) {
      fill(grid.originX + x * grid.rightX + y * grid.downX, wx, ix, raster.width, edges.x);
      fill(grid.originY + x * grid.rightY + y * grid.downY, wy, iy, raster.height, edges.y);
      for (let c = 0; c < raster.channels; c++) {
        const plane = raster.planes[c];
        let sum = 0;
        for (let j = 0; j < taps; j++) {
          if (wy[j] === 0) continue;
          const row = iy[j] * raster.width;
          let line = 0;
          for (let i = 0; i < taps; i++) line += plane[row + ix[i]] * wx[i];
          sum += line * wy[j];
        }
        out.planes[c][y * width + x] = sum;
      }
    }
  }
  return out;
}
