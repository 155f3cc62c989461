import { encodeFile } from '@zesty-tile/codecs';
import { type CrateFile, linearToSrgb } from '@zesty-tile/core';
import sharp from 'sharp';
import type { Random } from './trial.ts';

/** A picture of soft colour with some noise, told apart from others by its random numbers. */
export function noise(random: Random, width: number, height: number, channels: 3 | 4 = 3) {
  const data = new Uint8Array(width * height * channels);
  for (let i = 0; i < data.length; i++) data[i] = 90 + random.below(80);
  return sharp(data, { raw: { width, height, channels } });
}

/** One small whole file of every format that is read. */
export async function wholeFiles(random: Random): Promise<Record<string, Uint8Array>> {
  const [width, height] = [48, 40];
  const make = (channels: 3 | 4 = 3) => noise(random, width, height, channels);
  const exr = async (bits: 16 | 32) => {
    const file = { width, height, channels: 3, bits, format: 'exr', kind: 'colour' } as unknown as CrateFile;
    const samples = Float32Array.from({ length: width * height * 3 }, () => linearToSrgb(random.next()));
    return encodeFile(file, samples as never);
  };
  const rows = Array.from({ length: height }, () => [
    ...[2, 2, 0, width],
    ...Array.from({ length: 4 }, () => [128 + width, random.below(256)]).flat(),
  ]).flat();
  const head = new TextEncoder().encode(`#?RADIANCE\nFORMAT=32-bit_rle_rgbe\n\n-Y ${height} +X ${width}\n`);
  const files: Record<string, Uint8Array> = {
    'a.png': await make().png().toBuffer(),
    'b.png': await make(4).png({ adaptiveFiltering: true }).toBuffer(),
    'c.png': await make().toColourspace('rgb16').png().toBuffer(),
    'a.jpg': await make().withMetadata({ orientation: 6 }).jpeg().toBuffer(),
    'b.jpg': await make().toColourspace('cmyk').jpeg({ progressive: true }).toBuffer(),
    'a.webp': await make(4).webp().toBuffer(),
    'b.webp': await make().webp({ lossless: true }).toBuffer(),
    'a.tif': await make().tiff({ compression: 'lzw', predictor: 'horizontal' }).toBuffer(),
    'b.tif': await make().toColourspace('rgb16').tiff({ compression: 'deflate', tile: true }).toBuffer(),
    'c.tif': await make(4).tiff({ compression: 'none' }).toBuffer(),
    'a.exr': await exr(16),
    'b.exr': await exr(32),
    'a.hdr': new Uint8Array([...head, ...rows]),
  };
  // Slices of plain arrays are copies; those of the buffers that encoders give are not.
  return Object.fromEntries(Object.entries(files).map(([name, bytes]) => [name, new Uint8Array(bytes)]));
}
