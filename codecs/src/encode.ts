import { type CrateFile, encodedPlanes, quantise, type Raster, resizeArea } from '@zesty-tile/core';
import sharp from 'sharp';

/**
 * A crate file as PNG, 8 or 16 bit. Colour carries an sRGB tag; data carries none, so that no reader
 * converts it.
 */
export async function encodePng(file: CrateFile): Promise<Uint8Array> {
  const { width, height, bits, kind } = file;
  const channels = file.channels as 1 | 3;
  const picture = sharp(file.samples(), {
    raw: { width, height, channels },
    limitInputPixels: false,
  });
  const space = channels === 1 ? (bits === 16 ? 'grey16' : 'b-w') : bits === 16 ? 'rgb16' : 'srgb';
  const tagged = picture.toColourspace(space);
  const out = kind === 'colour' ? tagged.withIccProfile('srgb') : tagged;
  return out.png({ compressionLevel: 5, adaptiveFiltering: true }).toBuffer();
}

const THUMBNAIL = 256;

/** A small WebP of a linear colour picture, for lists. */
export async function encodeThumbnail(picture: Raster): Promise<Uint8Array> {
  const small = resizeArea(picture, THUMBNAIL, THUMBNAIL);
  const data = quantise(encodedPlanes(small, 'albedo'), 8);
  return sharp(data, { raw: { width: THUMBNAIL, height: THUMBNAIL, channels: 3 } })
    .webp({ quality: 88 })
    .toBuffer();
}
