import { crc32 } from 'node:zlib';
import {
  type CrateFile,
  encodedPlanes,
  isEncoded,
  KERNELS,
  linearToSrgb,
  type MapName,
  type Pixels,
  type Raster,
  resizeArea,
  type Samples,
} from '@zesty-tile/core';
import sharp, { type Sharp } from 'sharp';
import { decodeExr } from './exr.ts';
import { isExr } from './exr-header.ts';
import { encodeExrFile } from './exr-write.ts';
import { encodeKtx2File } from './ktx2.ts';
import { encodeTgaFile } from './tga.ts';

/** Signature and header of a PNG. */
const PNG_HEAD = 33;

/** A PNG with the chunk that says its values are sRGB, put in after its header. */
function taggedSrgb(png: Uint8Array): Uint8Array {
  const chunk = new Uint8Array(13);
  const view = new DataView(chunk.buffer);
  view.setUint32(0, 1);
  chunk.set(new TextEncoder().encode('sRGB'), 4);
  // Rendering intent: perceptual.
  chunk[8] = 0;
  view.setUint32(9, crc32(chunk.subarray(4, 9)));
  const out = new Uint8Array(png.length + chunk.length);
  out.set(png.subarray(0, PNG_HEAD));
  out.set(chunk, PNG_HEAD);
  out.set(png.subarray(PNG_HEAD), PNG_HEAD + chunk.length);
  return out;
}

/** Whether all pixels are the same. */
function isUniform(
  { buffer, byteOffset, byteLength, BYTES_PER_ELEMENT }: Samples,
  channels: number,
): boolean {
  const bytes = Buffer.from(buffer, byteOffset, byteLength);
  const pixel = channels * BYTES_PER_ELEMENT;
  return bytes.subarray(pixel).equals(bytes.subarray(0, byteLength - pixel));
}

/** Of lossy colour; data in a lossy format is as near as it can be. */
const COLOUR_QUALITY = 95;
const DATA_QUALITY = 100;

/**
 * A crate file in its format. Colour carries an sRGB profile; data carries none, so that no reader
 * converts it; TGA has no room for one, OpenEXR is linear. WebP holds data without loss. `isTagged` false leaves the profile
 * out where a document says by itself what is colour.
 */
export async function encodeFile(
  file: CrateFile,
  samples: Samples = file.samples(),
  isTagged = isEncoded(file),
): Promise<Uint8Array> {
  if (file.format === 'tga') return encodeTgaFile(file, samples);
  if (file.format === 'exr') return encodeExrFile(file, samples);
  if (file.format === 'ktx2') return encodeKtx2File(file, samples);
  const { width, height, bits, kind } = file;
  const channels = file.channels as 1 | 3 | 4;
  const picture = sharp(samples as Uint8Array | Uint16Array, {
    raw: { width, height, channels },
    limitInputPixels: false,
  });
  const space = channels === 1 ? (bits === 16 ? 'grey16' : 'b-w') : bits === 16 ? 'rgb16' : 'srgb';
  const tagged = picture.toColourspace(space);
  // The codec brings 16 bits down to 8 on the way to a profile, so a PNG of 16 is tagged by its own chunk.
  const out = isTagged && bits === 8 ? tagged.withIccProfile('srgb') : tagged;
  const quality = kind === 'colour' ? COLOUR_QUALITY : DATA_QUALITY;
  switch (file.format) {
    case 'png': {
      // Rows that differ in nothing need no filter chosen for each.
      const adaptiveFiltering = !isUniform(samples, channels);
      const png = await out.png({ compressionLevel: 3, adaptiveFiltering }).toBuffer();
      return isTagged && bits === 16 ? taggedSrgb(png) : png;
    }
    case 'tiff':
      return out.tiff({ compression: 'lzw', predictor: 'horizontal' }).toBuffer();
    case 'jpeg':
      return out.jpeg({ quality, chromaSubsampling: '4:4:4' }).toBuffer();
    case 'webp':
      return out
        .webp(kind === 'colour' ? { quality, smartSubsample: true } : { lossless: true, exact: true })
        .toBuffer();
  }
}

/** A small lossless WebP of one map of a tile, `edge` px on its longer side, encoded as the map's own files are. */
export async function encodeSmall(map: Raster, name: MapName, edge: number): Promise<Uint8Array> {
  const scale = edge / Math.max(map.width, map.height);
  const [width, height] = [Math.round(map.width * scale), Math.round(map.height * scale)];
  const small = resizeArea(map, width, height);
  const data = KERNELS.quantise(encodedPlanes(small, name), 8);
  const channels = small.planes.length as 1 | 3;
  return sharp(data, { raw: { width, height, channels } })
    .webp(name === 'albedo' ? { quality: 90 } : { lossless: true })
    .toBuffer();
}

/** A map of a tile as a lossless PNG of 16 bits, encoded as the map's own files are: to be read again as a picture. */
export async function encodeWhole(map: Raster, name: MapName): Promise<Uint8Array> {
  const { width, height } = map;
  const channels = map.planes.length as 1 | 3;
  const data = KERNELS.quantise(encodedPlanes(map, name), 16) as Uint16Array;
  const picture = sharp(data, { raw: { width, height, channels }, limitInputPixels: false });
  return picture
    .toColourspace(channels === 1 ? 'grey16' : 'rgb16')
    .png({ compressionLevel: 3 })
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
export async function encodeForScreen(
  bytes: Uint8Array,
  edge: number,
  channel: number | null = null,
): Promise<Uint8Array> {
  const picture = isExr(bytes)
    ? fromFloats(await decodeExr(bytes))
    : sharp(bytes, { limitInputPixels: false }).autoOrient().toColourspace('srgb');
  const channelOf = async (at: 0 | 1 | 2 | 3) => {
    // Made smaller with its alpha, colour would be weighed by it.
    const { data, info } = await picture.ensureAlpha().raw().toBuffer({ resolveWithObject: true });
    return sharp(data, { raw: info }).extractChannel(at);
  };
  const shown = channel === null ? picture : await channelOf(channel as 0);
  return shown
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
