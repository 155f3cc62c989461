import {
  type CrateFile,
  encodedPlanes,
  linearToSrgb,
  type MapName,
  type Pixels,
  quantise,
  type Raster,
  resizeArea,
} from '@zesty-tile/core';
import sharp, { type Sharp } from 'sharp';
import { decodeExr, isExr } from './exr.ts';

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

/** A small lossless WebP of one map of a tile, `edge` px on its longer side, encoded as the map's own files are. */
export async function encodeSmall(map: Raster, name: MapName, edge: number): Promise<Uint8Array> {
  const scale = edge / Math.max(map.width, map.height);
  const [width, height] = [Math.round(map.width * scale), Math.round(map.height * scale)];
  const small = resizeArea(map, width, height);
  const data = quantise(encodedPlanes(small, name), 8);
  const channels = small.planes.length as 1 | 3;
  return sharp(data, { raw: { width, height, channels } })
    .webp(name === 'albedo' ? { quality: 90 } : { lossless: true })
    .toBuffer();
}

/** Linear floats as 8-bit sRGB; what is brighter than white is white. */
function fromFloats({ width, height, channels, data }: Pixels): Sharp {
  const codes = Uint8Array.from(data, (value, i) => {
    const held = Math.min(1, Math.max(0, value || 0));
    return Math.round(255 * (i % channels === 3 ? held : linearToSrgb(held)));
  });
  return sharp(codes, { raw: { width, height, channels } });
}

/** A picture file as WebP to look at: upright, sRGB, at most `edge` px on its longer side, values kept. */
export async function encodeForScreen(bytes: Uint8Array, edge: number): Promise<Uint8Array> {
  const picture = isExr(bytes)
    ? fromFloats(await decodeExr(bytes))
    : sharp(bytes, { limitInputPixels: false }).autoOrient().toColourspace('srgb');
  return picture
    .resize(edge, edge, { fit: 'inside', withoutEnlargement: true })
    .webp({ lossless: true, effort: 1 })
    .toBuffer();
}

/** A picture of one colour (#rrggbb, sRGB), as a PNG: the start of a tile that is painted. */
export async function plainPicture(hex: string, edge: number): Promise<Uint8Array> {
  return sharp({ create: { width: edge, height: edge, channels: 3, background: hex } })
    .png()
    .toBuffer();
}
