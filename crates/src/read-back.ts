import { decodeTga } from '@lunapaint/tga-codec';
import { decodeExr, decodeKtx2File } from '@zesty-tile/codecs';
import { type CrateFile, type Format, Problem, type Samples } from '@zesty-tile/core';
import sharp from 'sharp';

/** How far a file that was read back lies from what was meant, in codes of its own bits (of 16 where it holds floats). */
export interface ReadBack {
  /** Of any sample, and on average. */
  most: number;
  mean: number;
}

/** A lossy file may be off so much on average, in codes; WebP halves the colour's size too. */
const LOSSY_MEAN: Partial<Record<Format, number>> = { jpeg: 4, webp: 12 };

const isLossy = ({ format, kind }: CrateFile): boolean =>
  format === 'jpeg' || (format === 'webp' && kind === 'colour');

/** Every 16-bit code between 0 and 1 has its half to this many codes: a half has 11 bits. */
const HALF_CODES = 2 ** 16 / 2 ** 12;

const channelsOf = (data: ArrayLike<number>, from: number, channels: number): Float32Array =>
  Float32Array.from(
    { length: (data.length / from) * channels },
    (_, i) => data[from * Math.floor(i / channels) + (i % channels)],
  );

/** The samples that stand in a file's bytes, interleaved as they were meant, each level by itself. */
async function samplesIn(file: CrateFile, bytes: Uint8Array): Promise<ArrayLike<number>[]> {
  const { channels, bits, format } = file;
  if (format === 'ktx2') return decodeKtx2File(file, bytes) ?? [];
  if (format === 'exr') {
    const { data, channels: held, width, height } = await decodeExr(bytes);
    return width === file.width && height === file.height ? [channelsOf(data, held, channels)] : [];
  }
  if (format === 'tga') {
    const { image } = await decodeTga(bytes);
    return [channelsOf(image.data, 4, channels)];
  }
  // Without its profile: the codes themselves are compared.
  const picture = sharp(bytes, { ignoreIcc: true, limitInputPixels: false });
  const isGrey = channels === 1;
  const { data, info } = await picture
    .toColourspace(bits === 16 ? (isGrey ? 'grey16' : 'rgb16') : isGrey ? 'b-w' : 'srgb')
    .raw({ depth: bits === 16 ? 'ushort' : 'uchar' })
    .toBuffer({ resolveWithObject: true });
  if (info.width !== file.width || info.height !== file.height || info.channels !== channels) return [];
  return [bits === 16 ? new Uint16Array(data.buffer, data.byteOffset, data.length / 2) : data];
}

/** Whether two lists of codes of the same kind are the same to the bit. */
const isSame = (a: ArrayLike<number>, b: Samples): boolean =>
  ArrayBuffer.isView(a) &&
  a.byteLength === b.byteLength &&
  a.length === b.length &&
  bytesOf(a).equals(bytesOf(b));

const bytesOf = ({ buffer, byteOffset, byteLength }: ArrayBufferView) =>
  Buffer.from(buffer, byteOffset, byteLength);

/** How far off samples may be, each and on average, in codes. */
function allowed(file: CrateFile): ReadBack {
  if (isLossy(file)) return { most: 2 ** file.bits, mean: LOSSY_MEAN[file.format] ?? 0 };
  const most = file.format === 'exr' && file.bits === 16 ? HALF_CODES : 0;
  return { most, mean: most };
}

/**
 * Decodes a file that was encoded and holds it against what was meant: to the code where its format loses nothing, to the
 * half where it holds halves, within a few codes on average where it does lose. @throws Problem `read_back` where it
 * holds something else.
 */
export async function readBack(
  file: CrateFile,
  bytes: Uint8Array,
  samples: Samples = file.samples(),
): Promise<ReadBack> {
  const read = await samplesIn(file, bytes).catch(() => []);
  const codes = file.format === 'exr' ? 2 ** 16 : 1;
  let most = read.length === 0 ? Number.POSITIVE_INFINITY : 0;
  let sum = 0;
  let count = 0;
  for (const [mip, level] of read.entries()) {
    const meant = mip === 0 ? samples : file.samples(mip);
    count += meant.length;
    if (isSame(level, meant)) continue;
    if (level.length !== meant.length) most = Number.POSITIVE_INFINITY;
    for (let i = 0; i < meant.length; i++) {
      const off = codes * Math.abs(level[i] - meant[i]);
      if (!(off <= most)) most = off;
      sum += off;
    }
  }
  const mean = sum / count;
  const limit = allowed(file);
  if (!(most <= limit.most && mean <= limit.mean)) {
    throw new Problem(
      'read_back',
      `The file “${file.ending}” failed verification after writing; the crate was not finished.`,
      'Crate it again. If it stays so, choose another format for this file.',
    );
  }
  return { most, mean };
}
