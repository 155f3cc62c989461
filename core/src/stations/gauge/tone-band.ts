import type { Tone } from '../../colour/luminance-map.ts';
import type { Recolour } from '../../colour/recolouring.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import type { Band } from '../../raster/band.ts';
import { Raster } from '../../raster/raster.ts';
import type { Sides } from '../../raster/sides.ts';
import { task } from '../../team/task.ts';
import type { Checkpoint } from '../../work/checkpoint.ts';

/** Pixels between two pauses. */
const BLOCK = 0x8000;

/** A picture, the tone and change of colour it goes through, and what it is laid over by how much. */
export interface Toning {
  planes: Float32Array[];
  tone: Tone;
  colour: Recolour;
  over: { under: Float32Array[]; cover: Float32Array } | null;
  out: Sides;
}

/** Rows of a picture through a tone, in their place in `into`. */
export const toneBand = task(
  'toneBand',
  async (
    checkpoint: Checkpoint,
    { planes, tone, colour, over, out: { width, height } }: Toning,
    into: Float32Array[],
    band: Band,
  ): Promise<void> => {
    const [picture, out] = [planes, into].map((own) => new Raster(width, height, own));
    const [begin, end] = [band.from * width, band.to * width];
    if (over) {
      for (const [c, plane] of into.entries()) plane.set(over.under[c].subarray(begin, end), begin);
    }
    for (let from = begin; from < end; from += BLOCK) {
      await checkpoint((from - begin) / (end - begin));
      KERNELS.toneBlock(picture, out, tone, colour, from, Math.min(end, from + BLOCK), over?.cover ?? null);
    }
  },
);
