import { type Pixels, Problem } from '@zesty-tile/core';
import sharp, { type Metadata } from 'sharp';
import { decodeExr, exrFacts, isExr } from './exr.ts';

/** Bounds on what is read: bytes of the file, decoded pixels, and the smallest side that can be a tile. */
export const LIMITS = { bytes: 200 * 1024 * 1024, pixels: 120_000_000, shortest: 32 };

const FORMATS = new Map([
  ['png', 'PNG'],
  ['jpeg', 'JPEG'],
  ['webp', 'WebP'],
  ['tiff', 'TIFF'],
]);

/** What a picture file holds, orientation settled. */
export interface PictureFacts {
  width: number;
  height: number;
  format: string;
  bits: 8 | 16 | 32;
  hasAlpha: boolean;
}

const WANTED = 'Use a PNG, JPEG, WebP, TIFF or OpenEXR picture.';

function checkBytes(bytes: Uint8Array): void {
  if (bytes.length === 0) throw new Problem('empty_file', 'The file is empty.', WANTED);
  if (bytes.length > LIMITS.bytes) {
    throw new Problem(
      'file_too_large',
      `The file has ${Math.round(bytes.length / 2 ** 20)} MB; at most ${LIMITS.bytes / 2 ** 20} MB are read.`,
      'Save it smaller, or crop it first.',
    );
  }
}

async function metadataOf(bytes: Uint8Array): Promise<Metadata> {
  try {
    // The pixel bound is checked below, with words of our own, before anything is unpacked.
    return await sharp(bytes, { limitInputPixels: false }).metadata();
  } catch {
    throw new Problem('not_a_picture', 'The file is not a picture this program can read.', WANTED);
  }
}

function checkSize(width: number, height: number): void {
  if (width * height > LIMITS.pixels) {
    throw new Problem(
      'too_many_pixels',
      `The picture has ${width} × ${height} pixels; at most ${LIMITS.pixels / 1e6} million are read.`,
      'Crop or shrink it first.',
    );
  }
  if (Math.min(width, height) < LIMITS.shortest) {
    throw new Problem(
      'too_small',
      `The picture has ${width} × ${height} pixels; its shorter side needs at least ${LIMITS.shortest}.`,
      'Use a larger photo.',
    );
  }
}

/**
 * Facts about a picture from its header. @throws Problem when it is empty, no picture, of another
 * format, animated, too large in bytes or decoded pixels, or too small to be a tile.
 */
export async function readFacts(bytes: Uint8Array): Promise<PictureFacts> {
  checkBytes(bytes);
  if (isExr(bytes)) {
    const { width, height, channels } = exrFacts(bytes);
    checkSize(width, height);
    return { width, height, format: 'OpenEXR', bits: 32, hasAlpha: channels.includes('A') };
  }
  const metadata = await metadataOf(bytes);
  const format = FORMATS.get(metadata.format ?? '');
  if (!format) {
    throw new Problem('not_a_picture', `The file is a ${metadata.format} file, which is not read.`, WANTED);
  }
  if ((metadata.pages ?? 1) > 1) {
    throw new Problem(
      'animated',
      `The file holds ${metadata.pages} pictures, not one.`,
      'Save the one picture you need by itself.',
    );
  }
  const { width, height } = metadata;
  checkSize(width, height);
  const turned = (metadata.orientation ?? 1) >= 5;
  return {
    width: turned ? height : width,
    height: turned ? width : height,
    format,
    bits: metadata.depth === 'ushort' ? 16 : 8,
    hasAlpha: metadata.hasAlpha ?? false,
  };
}

/**
 * Samples of a picture: sRGB encoded (OpenEXR: linear floats), 8 or 16 bit as the file has them, orientation applied, an embedded
 * profile converted to sRGB, CMYK and grey brought to RGB, alpha kept.
 * @throws Problem as `readFacts`, and when the file breaks off or is damaged.
 */
export async function decodePicture(bytes: Uint8Array): Promise<Pixels> {
  const facts = await readFacts(bytes);
  if (isExr(bytes)) return decodeExr(bytes);
  try {
    const picture = sharp(bytes, { limitInputPixels: LIMITS.pixels, failOn: 'warning' })
      .autoOrient()
      .toColourspace(facts.bits === 16 ? 'rgb16' : 'srgb');
    const { data, info } = await picture
      .raw({ depth: facts.bits === 16 ? 'ushort' : 'uchar' })
      .toBuffer({ resolveWithObject: true });
    const samples =
      facts.bits === 16
        ? new Uint16Array(data.buffer, data.byteOffset, data.byteLength / 2)
        : new Uint8Array(data.buffer, data.byteOffset, data.byteLength);
    const channels = info.channels === 4 ? 4 : 3;
    if (info.channels !== 3 && info.channels !== 4) {
      throw new Error(`unexpected ${info.channels} channels`);
    }
    return {
      width: info.width,
      height: info.height,
      channels,
      data: samples,
      originalWidth: info.width,
      originalHeight: info.height,
    };
  } catch (error) {
    throw new Problem(
      'damaged',
      `The picture breaks off or is damaged (${error instanceof Error ? error.message.split('\n')[0] : 'unknown'}).`,
      'Copy it again from where it came, or open and save it anew.',
    );
  }
}
