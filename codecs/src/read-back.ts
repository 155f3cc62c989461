import { decodeTga } from '@lunapaint/tga-codec';
import { type CrateFile, type Format, Problem } from '@zesty-tile/core';
import sharp from 'sharp';

/** How far a file that was read back lies from what was meant, in codes of its own bits. */
export interface ReadBack {
  /** Of any sample, and on average. */
  most: number;
  mean: number;
}

/** A lossy file may be off so much on average, in codes; WebP halves the colour's size too. */
const LOSSY_MEAN: Partial<Record<Format, number>> = { jpeg: 4, webp: 12 };

const isLossy = ({ format, kind }: CrateFile): boolean =>
  format === 'jpeg' || (format === 'webp' && kind === 'colour');

/** The samples that stand in a file's bytes, interleaved as they were meant. */
async function samplesIn(file: CrateFile, bytes: Uint8Array): Promise<ArrayLike<number>> {
  const { channels, bits, format } = file;
  if (format === 'tga') {
    const { image } = await decodeTga(bytes);
    if (channels === 4) return image.data;
    const out = new Uint8Array((image.data.length / 4) * channels);
    for (let i = 0; i < out.length; i++) out[i] = image.data[4 * Math.floor(i / channels) + (i % channels)];
    return out;
  }
  // Without its profile: the codes themselves are compared.
  const picture = sharp(bytes, { ignoreIcc: true, limitInputPixels: false });
  const isGrey = channels === 1;
  const { data, info } = await picture
    .toColourspace(bits === 16 ? (isGrey ? 'grey16' : 'rgb16') : isGrey ? 'b-w' : 'srgb')
    .raw({ depth: bits === 16 ? 'ushort' : 'uchar' })
    .toBuffer({ resolveWithObject: true });
  if (info.width !== file.width || info.height !== file.height || info.channels !== channels) return [];
  return bits === 16 ? new Uint16Array(data.buffer, data.byteOffset, data.length / 2) : data;
}

/**
 * Decodes a file that was encoded and holds it against what was meant: to the code where its format loses nothing, within
 * a few codes on average where it does. @throws Problem `read_back` where it holds something else.
 */
export async function readBack(file: CrateFile, bytes: Uint8Array): Promise<ReadBack> {
  const meant = file.samples();
  const read = await samplesIn(file, bytes);
  let most = read.length === meant.length ? 0 : Number.POSITIVE_INFINITY;
  let sum = 0;
  if (most === 0) {
    for (let i = 0; i < meant.length; i++) {
      const off = Math.abs(read[i] - meant[i]);
      if (off > most) most = off;
      sum += off;
    }
  }
  const mean = sum / meant.length;
  const isAsMeant = isLossy(file)
    ? Number.isFinite(most) && mean <= (LOSSY_MEAN[file.format] ?? 0)
    : most === 0;
  if (!isAsMeant) {
    throw new Problem(
      'read_back',
      `The file “${file.ending}” reads back otherwise than it was meant; the crate was not finished.`,
      'Crate it again. If it stays so, choose another format for this file.',
    );
  }
  return { most, mean };
}
