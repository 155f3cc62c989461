import { TORUS } from '../raster/edges.ts';
import { Raster } from '../raster/raster.ts';
import { resizeArea } from './resize.ts';
import { sampleBilinear } from './sample.ts';

/** How a picture that tiles lies on a tile: how often along the longer edge, and quarter turns clockwise. */
export interface Repeat {
  count: number;
  quarters: number;
}

/**
 * A picture that meets itself, laid a whole number of times over a plane of these sides, so that it meets itself
 * there too. Brought down first where it would be laid too finely. `count` ≥ 1 whole.
 */
export function repeated(
  picture: Raster,
  { width, height }: { width: number; height: number },
  { count, quarters }: Repeat,
): Raster {
  const longer = Math.max(width, height);
  const along = (side: number) => Math.max(1, Math.round((count * side) / longer));
  const [across, down] = [along(width), along(height)];
  const turned = quarters % 2 === 1;
  const most = (side: number, times: number) => Math.max(1, Math.round(side / times));
  const [wide, high] = turned
    ? [most(height, down), most(width, across)]
    : [most(width, across), most(height, down)];
  const small =
    picture.width > wide || picture.height > high
      ? resizeArea(picture, Math.min(picture.width, wide), Math.min(picture.height, high))
      : picture;
  const out = Raster.filled(width, height, picture.channels);
  for (let y = 0, i = 0; y < height; y++) {
    const v = (((y + 0.5) / height) * down) % 1;
    for (let x = 0; x < width; x++, i++) {
      const u = (((x + 0.5) / width) * across) % 1;
      const [s, t] = [
        [u, v],
        [v, 1 - u],
        [1 - u, 1 - v],
        [1 - v, u],
      ][quarters % 4];
      const [sx, sy] = [s * small.width - 0.5, t * small.height - 0.5];
      for (let c = 0; c < small.channels; c++) {
        out.planes[c][i] = sampleBilinear(small.planes[c], small.width, small.height, sx, sy, TORUS);
      }
    }
  }
  return out;
}
