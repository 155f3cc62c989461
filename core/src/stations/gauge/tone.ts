import { KERNELS } from '../../kernels/kernels.ts';
import { Raster } from '../../raster/raster.ts';
import type { Tone } from './luminance-map.ts';
import type { Recolour } from './recolour.ts';

/** Pixels between two pauses. */
const BLOCK = 0x8000;

/** Where a tone is laid over what another made: that one's result, and by how much, 0..1, each pixel is replaced. */
export interface Over {
  under: Raster;
  cover: Float32Array;
}

/**
 * Linear RGB through a tone and a change of colour in OKLab (Ottosson 2020) with luminance Y held. A colour pushed past
 * 0..1 is drawn towards grey of its own Y, its hue held.
 * `breathe` is awaited between blocks of rows.
 */
export async function applyTone(
  picture: Raster,
  tone: Tone,
  colour: Recolour,
  breathe: (done: number) => Promise<void>,
  over?: Over,
): Promise<Raster> {
  const out = over
    ? over.under.mapPlanes((plane) => plane.slice())
    : Raster.filled(picture.width, picture.height, 3);
  const count = picture.width * picture.height;
  for (let from = 0; from < count; from += BLOCK) {
    await breathe(from / count);
    KERNELS.toneBlock(picture, out, tone, colour, from, Math.min(count, from + BLOCK), over?.cover ?? null);
  }
  return out;
}
