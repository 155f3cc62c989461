import type { Pixels } from '@zesty-tile/core';
import { checkExrBlocks } from './exr-blocks.ts';
import { exrDamaged, readExrHeader } from './exr-header.ts';

interface Decoded {
  width: number;
  height: number;
  /** Linear samples, rows from the bottom. */
  data: Float32Array;
}

async function load(bytes: Uint8Array): Promise<Decoded> {
  // The decoder is large and seldom needed.
  const { FloatType } = await import('three');
  const { EXRLoader } = await import('three/examples/jsm/loaders/EXRLoader.js');
  // One zero more than the file has: the decoder looks for the end of names without a bound.
  const padded = new Uint8Array(bytes.length + 1);
  padded.set(bytes);
  try {
    const loader = new EXRLoader();
    loader.setDataType(FloatType);
    return loader.parse(padded.buffer) as unknown as Decoded;
  } catch (error) {
    throw exrDamaged(error instanceof Error ? error.message.replace(/^THREE\.EXRLoader: /, '') : 'unknown');
  }
}

/** Swaps rows in place, so that the first one is the top. */
function flipRows(data: Float32Array, row: number, height: number): void {
  const kept = new Float32Array(row);
  for (let y = 0; y < height >> 1; y++) {
    const [upper, lower] = [y * row, (height - 1 - y) * row];
    kept.set(data.subarray(upper, upper + row));
    data.copyWithin(upper, lower, lower + row);
    data.set(kept, lower);
  }
}

/**
 * Linear floats of an OpenEXR picture; a single channel is read as grey. The samples of the decoder are rearranged in place,
 * since a second copy of a large picture would not fit.
 * @throws Problem `damaged`, or `exr_layout` for a layout that is not read.
 */
export async function decodeExr(bytes: Uint8Array): Promise<Pixels> {
  const header = readExrHeader(bytes);
  const { width, height } = header;
  checkExrBlocks(bytes, header);
  const { data, ...decoded } = await load(bytes);
  const each = data.length / (width * height);
  if (decoded.width !== width || decoded.height !== height || each !== 4) {
    throw exrDamaged('it has other samples than its header states');
  }
  flipRows(data, 4 * width, height);
  const size = { width, height, originalWidth: width, originalHeight: height };
  if (header.channels.includes('A')) return { ...size, channels: 4, data };
  for (let i = 0, to = 0; i < data.length; i += 4, to += 3) {
    data[to] = data[i];
    data[to + 1] = data[i + 1];
    data[to + 2] = data[i + 2];
  }
  return { ...size, channels: 3, data: data.subarray(0, 3 * width * height) };
}
