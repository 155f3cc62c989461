import { type Raster, resizeArea } from '@zesty-tile/core';

const EDGE = 64;

const kept = new WeakMap<Float32Array, Raster>();

/** A picture at 64 px of its longer edge; made once for all that show it small, and gone with the picture. */
export function smallMip(raster: Raster): Raster {
  const [first] = raster.planes;
  const known = kept.get(first);
  if (known && known.channels === raster.channels) return known;
  const scale = EDGE / Math.max(raster.width, raster.height);
  const made = resizeArea(raster, Math.round(raster.width * scale), Math.round(raster.height * scale));
  kept.set(first, made);
  return made;
}
