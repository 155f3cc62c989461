import { KERNELS } from '../../kernels/kernels.ts';
import type { Raster } from '../../raster/raster.ts';
import { MAP_KIND, type MapName } from './maps.ts';

/** Samples of a file: codes of 8 or 16 bits, or floats. */
export type Samples = Uint8Array | Uint16Array | Float32Array;

/** Planes of a map as they stand in a file, 0..1: colour sRGB encoded, normals (n + 1)/2, data as it is. */
export function encodedPlanes(raster: Raster, map: MapName): Float32Array[] {
  if (MAP_KIND[map] === 'colour') return raster.planes.map(KERNELS.encodeSrgbPlane);
  if (map === 'normal') {
    return raster.planes.map((plane) => {
      const out = new Float32Array(plane.length);
      for (let i = 0; i < out.length; i++) out[i] = (plane[i] + 1) / 2;
      return out;
    });
  }
  return raster.planes;
}

/** Interleaved floats of planes, as they are, into the start of `out`. */
export function interleave(planes: Float32Array[], out: Float32Array): void {
  const channels = planes.length;
  for (const [c, plane] of planes.entries())
    for (let i = 0, at = c; i < plane.length; i++, at += channels) out[at] = plane[i];
}

/**
 * Interleaved whole-number samples of planes 0..1, rounded to the nearest code of 8 or 16 bits; into the start of `out`
 * where one is given.
 */
export function quantise(
  planes: Float32Array[],
  bits: 8 | 16,
  out: Uint8Array | Uint16Array = new (bits === 8 ? Uint8Array : Uint16Array)(
    planes[0].length * planes.length,
  ),
): Uint8Array | Uint16Array {
  const n = planes[0].length;
  const channels = planes.length;
  const full = 2 ** bits - 1;
  for (let c = 0; c < channels; c++) {
    const plane = planes[c];
    for (let i = 0, at = c; i < n; i++, at += channels) {
      const v = plane[i];
      out[at] = v <= 0 ? 0 : v >= 1 ? full : Math.floor(v * full + 0.5);
    }
  }
  return out;
}
