import { seen } from '../../kernels/cut-costs/reference.ts';
import type { Raster } from '../../raster/raster.ts';
import { resizeArea } from '../../sampling/resize.ts';
import type { Margins } from '../square/output.ts';
import { KEEP_OUT } from './cut.ts';
import type { Vector } from './vectors.ts';

/** Working sizes of the search, coarse first, as shares of the picture's own; each halves the step. */
const SCALES = [1 / 4, 1 / 2, 1];
/** Farthest shift along the tile's edge and aside of it, as shares of the tile. */
const FAR_ALONG = 1 / 13;
const FAR_ASIDE = 1 / 26;
/** By how much the farthest shift must be cheaper to be taken: aside it slants rows, so it must be much. */
const COST_ALONG = 0.25;
const COST_ASIDE = 0.9;
/** How many of the best go on to the next scale. */
const KEPT = 3;
const FLAT = 0.02;

interface Scaled {
  width: number;
  height: number;
  planes: Float32Array[];
  slopes: Float32Array;
}

interface Shift {
  along: number;
  aside: number;
  price: number;
}

function scaled(picture: Raster, scale: number): Scaled {
  const width = Math.max(8, Math.round(picture.width * scale));
  const height = Math.max(8, Math.round(picture.height * scale));
  const planes = resizeArea(picture, width, height).planes.map(seen);
  const slopes = new Float32Array(width * height);
  for (const plane of planes) {
    for (let y = 0; y < height; y++) {
      for (let x = 0; x < width; x++) {
        const i = y * width + x;
        const right = x + 1 < width ? plane[i + 1] - plane[i] : 0;
        const down = y + 1 < height ? plane[i + width] - plane[i] : 0;
        slopes[i] += right * right + down * down;
      }
    }
  }
  for (let i = 0; i < slopes.length; i++) slopes[i] = Math.sqrt(slopes[i]);
  return { width, height, planes, slopes };
}

/**
 * Price per pixel of the best cut of one column a row (Efros & Freeman 2001, on the costs of Kwatra et al.
 * 2003) between the picture at column `from` and the same `shiftX`, `shiftY` further on: quick enough to
 * price many shifts by.
 */
function priceOf(at: Scaled, from: number, overlap: number, shiftX: number, shiftY: number): number {
  const { width, height, planes, slopes } = at;
  const low = Math.ceil(overlap * KEEP_OUT);
  const high = Math.max(low + 1, Math.floor(overlap * (1 - KEEP_OUT)));
  const first = Math.max(0, -shiftY);
  const last = Math.min(height, height - shiftY);
  const columns = high - low;
  let above = new Float64Array(columns);
  let here = new Float64Array(columns);
  for (let y = first; y < last; y++) {
    for (let k = 0; k < columns; k++) {
      const b = y * width + from + low + k;
      const a = b + shiftY * width + shiftX;
      let sum = 0;
      for (const plane of planes) sum += (plane[a] - plane[b]) ** 2;
      const cost = Math.sqrt(sum) / (slopes[a] + slopes[b] + FLAT);
      let best = above[k];
      if (k > 0 && above[k - 1] < best) best = above[k - 1];
      if (k + 1 < columns && above[k + 1] < best) best = above[k + 1];
      here[k] = best + cost;
    }
    [above, here] = [here, above];
  }
  return Math.min(...above) / Math.max(1, last - first);
}

/**
 * The vector from which the copy to the right is best taken: near (`period`, 0), in edges of the crop,
 * where the least cut between picture and copy is cheapest, rows kept level by a price on every shift
 * aside. `picture` is the working picture with its margins, `size` its pixels along the crop's edge;
 * turned on its side it gives the vector down.
 */
export async function searchOffset(
  picture: Raster,
  margins: Margins,
  size: number,
  period: number,
  overlap: number,
  checkpoint: (done: number) => Promise<void>,
): Promise<Vector> {
  let candidates: Shift[] = [{ along: 0, aside: 0, price: 0 }];
  for (const [step, scale] of SCALES.entries()) {
    const at = scaled(picture, scale);
    const edge = size * scale;
    const strip = Math.max(4, Math.round(overlap * period * edge));
    const reach = step === 0 ? Math.ceil(FAR_ALONG * edge) : 1;
    const reachAside = step === 0 ? Math.ceil(FAR_ASIDE * edge) : 1;
    const centre = (margins.left + size / 2) * scale;
    const tried = new Map<string, Shift>();
    for (const near of candidates) {
      for (let j = -reachAside; j <= reachAside; j++) {
        await checkpoint((step + (j + reachAside) / (2 * reachAside + 1)) / SCALES.length);
        for (let i = -reach; i <= reach; i++) {
          const along = 2 * near.along + i;
          const aside = 2 * near.aside + j;
          const key = `${along} ${aside}`;
          if (tried.has(key)) continue;
          const vector = Math.round(period * edge) + along;
          const whole = vector + strip;
          const from = Math.round(Math.min(Math.max(0, centre - whole / 2), at.width - whole));
          if (from < 0 || vector < edge / 4) continue;
          const price =
            priceOf(at, from, strip, vector, aside) *
            (1 +
              COST_ALONG * (along / (FAR_ALONG * edge)) ** 2 +
              COST_ASIDE * (aside / (FAR_ASIDE * edge)) ** 2);
          tried.set(key, { along, aside, price });
        }
      }
    }
    candidates = [...tried.values()].sort((a, b) => a.price - b.price).slice(0, KEPT);
    if (candidates.length === 0) return [period, 0];
  }
  const [{ along, aside }] = candidates;
  return [(Math.round(period * size) + along) / size, aside / size];
}
