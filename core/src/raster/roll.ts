import { edgeIndex } from './edges.ts';
import type { Raster } from './raster.ts';

/** The plane shifted right by `dx` and down by `dy` whole pixels on the torus; rows from the top. */
export function rollPlane(
  plane: Float32Array,
  width: number,
  height: number,
  dx: number,
  dy: number,
): Float32Array {
  const out = new Float32Array(plane.length);
  const sx = edgeIndex(dx, width, 'wrap');
  for (let y = 0; y < height; y++) {
    const from = y * width;
    const to = edgeIndex(y + dy, height, 'wrap') * width;
    out.set(plane.subarray(from, from + width - sx), to + sx);
    out.set(plane.subarray(from + width - sx, from + width), to);
  }
  return out;
}

/** `rollPlane` on every channel. */
export function roll(raster: Raster, dx: number, dy: number): Raster {
  return raster.mapPlanes((plane) => rollPlane(plane, raster.width, raster.height, dx, dy));
}
