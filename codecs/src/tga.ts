import { encodeTga } from '@lunapaint/tga-codec';
import type { CrateFile, Samples } from '@zesty-tile/core';

/** Run-length encoded true colour and grey, and a picture whose first row is its top. */
const TRUE_COLOUR = 10;
const GREY = 11;
const TOP_LEFT = 2;

/** A crate file as TGA, 8 bit: grey, true colour, or true colour with alpha. */
export async function encodeTgaFile(file: CrateFile, samples: Samples): Promise<Uint8Array> {
  const { width, height, channels } = file;
  const data = new Uint8Array(4 * width * height);
  for (let i = 0; i < width * height; i++) {
    for (let c = 0; c < 3; c++) data[4 * i + c] = samples[i * channels + Math.min(c, channels - 1)];
    data[4 * i + 3] = channels === 4 ? samples[4 * i + 3] : 255;
  }
  const made = await encodeTga(
    { width, height, data },
    {
      bitDepth: channels === 1 ? 8 : channels === 3 ? 24 : 32,
      imageType: channels === 1 ? GREY : TRUE_COLOUR,
      screenOrigin: TOP_LEFT,
    },
  );
  return made.data;
}
