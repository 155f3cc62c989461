import type { Sides } from '../../raster/sides.ts';

/** A plane of half as many pixels on both sides, each the mean of four; sides are even. */
export function half(plane: Float32Array, { width, height }: Sides): Float32Array {
  const out = new Float32Array((width / 2) * (height / 2));
  let at = 0;
  for (let y = 0; y < height; y += 2) {
    for (let i = y * width; i < (y + 1) * width; i += 2) {
      out[at++] = (plane[i] + plane[i + 1] + plane[i + width] + plane[i + width + 1]) / 4;
    }
  }
  return out;
}
