import { srgbToLinear } from '../colour/srgb.ts';
import type { Raster } from '../raster/raster.ts';

/** One size of a stamp: how much of each pixel it covers, 0..1, and its colour times that, linear RGB. */
interface Level {
  width: number;
  height: number;
  planes: readonly [cover: Float32Array, r: Float32Array, g: Float32Array, b: Float32Array];
}

/** A picture as a stamp, in sizes that are halved each time. Its longer side is as long as two radii. */
export type PictureStamp = readonly Level[];

/** Smallest longer side of a level, in pixels. */
const SMALLEST = 4;

/** A level of half the size, each pixel the mean of those it stands for. */
function halved({ width, height, planes }: Level): Level {
  const [w, h] = [Math.max(1, width >> 1), Math.max(1, height >> 1)];
  const half = (plane: Float32Array) => {
    const out = new Float32Array(w * h);
    for (let y = 0; y < h; y++) {
      const [top, low] = [Math.min(2 * y, height - 1), Math.min(2 * y + 1, height - 1)];
      for (let x = 0; x < w; x++) {
        const [left, right] = [Math.min(2 * x, width - 1), Math.min(2 * x + 1, width - 1)];
        const sum =
          plane[top * width + left] +
          plane[top * width + right] +
          plane[low * width + left] +
          plane[low * width + right];
        out[y * w + x] = sum / 4;
      }
    }
    return out;
  };
  return { width: w, height: h, planes: planes.map(half) as unknown as Level['planes'] };
}

/**
 * A stamp of a picture's codes, sRGB 0..1 with alpha. A picture that is transparent somewhere stamps where it is opaque; any other
 * where it is dark.
 */
export function pictureStamp({ width, height, planes: [r, g, b, alpha] }: Raster): PictureStamp {
  const isCutOut = alpha.some((value) => value < 1);
  const cover = isCutOut ? alpha.slice() : r.map((value, i) => 1 - (value + g[i] + b[i]) / 3);
  const colours = [r, g, b].map((plane) => plane.map((value, i) => srgbToLinear(value) * cover[i]));
  const levels: Level[] = [{ width, height, planes: [cover, colours[0], colours[1], colours[2]] }];
  for (let last = levels[0]; Math.max(last.width, last.height) > SMALLEST; ) {
    last = halved(last);
    levels.push(last);
  }
  return levels;
}

/** The level of a stamp whose pixels are nearest to those of a print of a radius in pixels, and never much smaller. */
export function levelFor(stamp: PictureStamp, radius: number): Level {
  const longer = Math.max(stamp[0].width, stamp[0].height);
  const halvings = Math.max(0, Math.floor(Math.log2(longer / Math.max(1e-6, 2 * radius)) + 0.5));
  return stamp[Math.min(halvings, stamp.length - 1)];
}

/**
 * How much a stamp covers at a place in radii from its middle, and its colour there times that: into `out`, cover first. Between
 * pixels linear; nothing beyond its border.
 */
export function stampAt({ width, height, planes }: Level, x: number, y: number, out: Float64Array): void {
  const half = Math.max(width, height) / 2;
  const [u, v] = [x * half + width / 2 - 0.5, y * half + height / 2 - 0.5];
  const [k, j] = [Math.floor(u), Math.floor(v)];
  const [s, t] = [u - k, v - j];
  for (let c = 0; c < 4; c++) {
    const at = (dx: number, dy: number) =>
      k + dx >= 0 && k + dx < width && j + dy >= 0 && j + dy < height
        ? planes[c][(j + dy) * width + k + dx]
        : 0;
    const top = at(0, 0) + s * (at(1, 0) - at(0, 0));
    const low = at(0, 1) + s * (at(1, 1) - at(0, 1));
    out[c] = top + t * (low - top);
  }
}
