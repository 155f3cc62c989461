import { type Pixels, Problem } from '@zesty-tile/core';
import sharp, { type Metadata } from 'sharp';
import { decodeExr } from './exr.ts';
import { checkExrBlocks } from './exr-blocks.ts';
import { isExr, readExrHeader } from './exr-header.ts';

/** Bounds on what is read: bytes of the file, decoded pixels, and the smallest side that can be a tile. */
export const LIMITS = { bytes: 200 * 1024 * 1024, pixels: 120_000_000, shortest: 32 };

const FORMATS = new Map([
  ['png', 'PNG'],
  ['jpeg', 'JPEG'],
  ['webp', 'WebP'],
  ['tiff', 'TIFF'],
]);

/** Where in a file a format is named, and how. Only files of a known format reach the codec library. */
const SIGNATURES: [at: number, text: string, format: string][] = [
  [0, '\x89PNG\r\n\x1a\n', 'png'],
  [0, '\xff\xd8\xff', 'jpeg'],
  [8, 'WEBP', 'webp'],
  [0, 'II*\0', 'tiff'],
  [0, 'II+\0', 'tiff'],
  [0, 'MM\0*', 'tiff'],
  [0, 'MM\0+', 'tiff'],
  [0, 'GIF8', 'gif'],
  [0, '8BPS', 'psd'],
  [4, 'ftyp', 'heif'],
  [0, '<?xml', 'xml'],
  [0, '<svg', 'svg'],
];

/** The most one picture may take to decode, in seconds. */
const DECODE_SECONDS = 90;

/** Lets the codec library keep no results: pictures are kept by the programs that read them, within bounds. */
export function keepNothing(): void {
  sharp.cache(false);
}

/** Format of a file by its first bytes; null where it is none that is known. */
export function formatOf(bytes: Uint8Array): string | null {
  const start = String.fromCharCode(...bytes.subarray(0, 16));
  return SIGNATURES.find(([at, text]) => start.startsWith(text, at))?.[2] ?? null;
}

/** What a picture file holds, orientation settled. */
export interface PictureFacts {
  width: number;
  height: number;
  format: string;
  bits: 8 | 16 | 32;
  hasAlpha: boolean;
}

const WANTED = 'Use a PNG, JPEG, WebP, TIFF or OpenEXR picture.';

const notAPicture = () =>
  new Problem('not_a_picture', 'The file is not a picture this program can read.', WANTED);

function checkBytes(bytes: Uint8Array): void {
  if (bytes.length === 0) throw new Problem('empty_file', 'The file is empty.', WANTED);
  if (bytes.length > LIMITS.bytes) {
    throw new Problem(
      'file_too_large',
      `The file is ${Math.round(bytes.length / 2 ** 20)} MB; the limit is ${LIMITS.bytes / 2 ** 20} MB.`,
      'Save it smaller, or crop it first.',
    );
  }
}

async function metadataOf(bytes: Uint8Array): Promise<Metadata> {
  try {
    // The pixel bound is checked below, with words of our own, before anything is unpacked.
    return await sharp(bytes, { limitInputPixels: false }).metadata();
  } catch {
    throw notAPicture();
  }
}

/** @throws Problem `too_many_pixels` for a picture that is too large to decode. */
export function checkPixels(width: number, height: number): void {
  if (width * height > LIMITS.pixels) {
    throw new Problem(
      'too_many_pixels',
      `The picture has ${width} × ${height} pixels; at most ${LIMITS.pixels / 1e6} million are read.`,
      'Crop or shrink it first.',
    );
  }
}

function checkSize(width: number, height: number): void {
  checkPixels(width, height);
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
    const header = readExrHeader(bytes);
    const { width, height, channels } = header;
    checkSize(width, height);
    checkExrBlocks(bytes, header);
    return { width, height, format: 'OpenEXR', bits: 32, hasAlpha: channels.includes('A') };
  }
  const kind = formatOf(bytes);
  if (!kind) throw notAPicture();
  const format = FORMATS.get(kind);
  if (!format)
    throw new Problem('not_a_picture', `The file is a ${kind} file, which is not supported.`, WANTED);
  const metadata = await metadataOf(bytes);
  if (metadata.format !== kind) throw notAPicture();
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
 * @throws Problem as `readFacts`, and when the file is cut short or damaged.
 */
export async function decodePicture(bytes: Uint8Array): Promise<Pixels> {
  const facts = await readFacts(bytes);
  if (isExr(bytes)) return decodeExr(bytes);
  try {
    const picture = sharp(bytes, { limitInputPixels: LIMITS.pixels, failOn: 'warning' })
      .timeout({ seconds: DECODE_SECONDS })
      .autoOrient()
      .toColourspace(facts.bits === 16 ? 'rgb16' : 'srgb');
    const { data, info } = await picture
      .raw({ depth: facts.bits === 16 ? 'ushort' : 'uchar' })
      // In memory that can be moved to another thread.
      .toUint8Array();
    const samples =
      facts.bits === 16 ? new Uint16Array(data.buffer, data.byteOffset, data.byteLength / 2) : data;
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
    const why = error instanceof Error ? error.message.split('\n')[0].slice(0, 200) : 'unknown';
    if (/^timeout:/.test(why)) {
      throw new Problem(
        'too_slow',
        `The picture took longer than ${DECODE_SECONDS} s to read.`,
        'Open it in another program, save it again, and try that copy.',
      );
    }
    throw new Problem(
      'damaged',
      `The picture is incomplete or damaged (${why}).`,
      'Copy it again from where it came, or open it and save it again.',
    );
  }
}
