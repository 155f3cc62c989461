import { encodeSrgbPlane } from '../encode-srgb/reference.ts';

/** How values become codes: colour through the sRGB curve, data by a gain and a base. */
export type Shown = 'colour' | { gain: number; base: number };

const OPAQUE = 0xff000000;

const codeOf = (value: number): number => Math.min(255, Math.max(0, 255 * value + 0.5)) | 0;

/** Opaque RGBA pixels of 8 bits of one or three planes, red first. */
export function screenCodes(planes: readonly Float32Array[], as: Shown): Uint8ClampedArray<ArrayBuffer> {
  const encoded =
    as === 'colour'
      ? planes.map(encodeSrgbPlane)
      : planes.map((plane) => plane.map((value) => as.gain * value + as.base));
  const [r, g, b] = encoded.length === 1 ? [encoded[0], encoded[0], encoded[0]] : encoded;
  const out = new Uint8ClampedArray(4 * r.length);
  // Four bytes at once, red first: every machine that runs a browser is little-endian.
  const pixels = new Uint32Array(out.buffer);
  for (let i = 0; i < pixels.length; i++) {
    pixels[i] = OPAQUE | (codeOf(b[i]) << 16) | (codeOf(g[i]) << 8) | codeOf(r[i]);
  }
  return out;
}

export const reference = { screenCodes };
