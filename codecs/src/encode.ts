import {
  type CrateFile,
  encodedPlanes,
  type MapName,
  quantise,
  type Raster,
  resizeArea,
} from '@zesty-tile/core';
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

/** A small lossless WebP of one map of a tile, `edge` × `edge` px, encoded as the map's own files are. */
export async function encodeSmall(map: Raster, name: MapName, edge: number): Promise<Uint8Array> {
  const small = resizeArea(map, edge, edge);
  const data = quantise(encodedPlanes(small, name), 8);
  const channels = small.planes.length as 1 | 3;
  return sharp(data, { raw: { width: edge, height: edge, channels } })
    .webp(name === 'albedo' ? { quality: 90 } : { lossless: true })
    .toBuffer();
}

/** A picture file as WebP to look at: upright, sRGB, at most `edge` px on its longer side, values kept. */
export async function encodeForScreen(bytes: Uint8Array, edge: number): Promise<Uint8Array> {
  return sharp(bytes, { limitInputPixels: false })
    .autoOrient()
    .toColourspace('srgb')
    .resize(edge, edge, { fit: 'inside', withoutEnlargement: true })
    .webp({ lossless: true, effort: 1 })
    .toBuffer();
}
