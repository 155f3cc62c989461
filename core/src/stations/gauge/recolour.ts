import { linearOfHex } from '../../colour/hex.ts';
import { LUMINANCE } from '../../colour/luminance-of.ts';
import type { Raster } from '../../raster/raster.ts';

/** Gains of the channels under which a colour (#rrggbb) is grey of the same luminance. */
export function whiteGains(white: string): [number, number, number] {
  const rgb = linearOfHex(white);
  const y = rgb.reduce((sum, value, c) => sum + value * LUMINANCE[c], 0);
  return rgb.map((value) => (value > 0 ? y / value : 1)) as [number, number, number];
}

/** The picture with its channels multiplied; itself where that changes nothing. */
export function balanced(picture: Raster, gains: readonly number[]): Raster {
  if (gains.every((gain) => Math.abs(gain - 1) < 1e-6)) return picture;
  return picture.mapPlanes((plane, c) => {
    const out = new Float32Array(plane.length);
    for (let i = 0; i < out.length; i++) out[i] = gains[c] * plane[i];
    return out;
  });
}
