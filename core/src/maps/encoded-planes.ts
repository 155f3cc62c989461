import { KERNELS } from '../kernels/kernels.ts';
import type { Raster } from '../raster/raster.ts';
import { MAPS, type MapName } from './maps.ts';

/** Samples of a file: codes of 8 or 16 bits, or floats. */
export type Samples = Uint8Array | Uint16Array | Float32Array;

/** Planes of a map as they stand in a file, 0..1: colour sRGB encoded, normals (n + 1)/2, data as it is. */
export function encodedPlanes(raster: Raster, map: MapName): Float32Array[] {
  if (MAPS[map].kind === 'colour') return raster.planes.map(KERNELS.encodeSrgbPlane);
  if (map === 'normal') {
    return raster.planes.map((plane) => KERNELS.sumPlanes([plane], [0.5], { base: 0.5 }));
  }
  return raster.planes;
}

/** Interleaved floats of planes, as they are, into the start of `out`. */
export function interleave(planes: Float32Array[], out: Float32Array): void {
  const channels = planes.length;
  for (const [c, plane] of planes.entries())
    for (let i = 0, at = c; i < plane.length; i++, at += channels) out[at] = plane[i];
}
