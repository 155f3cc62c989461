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

/** Moves values on by so many places, those at the end to the front, where they lie. */
function turnRound(values: Float32Array, by: number): void {
  const left = values.length - by;
  if (by <= left) {
    const end = values.slice(left);
    values.copyWithin(by, 0, left);
    values.set(end);
  } else {
    const front = values.slice(0, left);
    values.copyWithin(0, left);
    values.set(front, by);
  }
}

/** `roll` in the raster's own planes. */
export function rollInPlace({ width, height, planes }: Raster, dx: number, dy: number): void {
  const [sx, sy] = [edgeIndex(dx, width, 'wrap'), edgeIndex(dy, height, 'wrap')];
  for (const plane of planes) {
    turnRound(plane, sy * width);
    for (let y = 0; y < height; y++) turnRound(plane.subarray(y * width, (y + 1) * width), sx);
  }
}
