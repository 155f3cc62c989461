import { KERNELS } from '../../kernels/kernels.ts';
import type { Band } from '../../raster/band.ts';
import { MIRROR } from '../../raster/edges.ts';
import { Raster } from '../../raster/raster.ts';
import type { Sides } from '../../raster/sides.ts';
import { resampleAffine, resampleField } from '../../sampling/sample.ts';
import { task } from '../../team/task.ts';
import { type Crop, framePlace, type MarginShares, samplingGrid } from './geometry.ts';

/** A picture, and the crop with margins that is to be taken from it at this many pixels. */
export interface Framing {
  planes: Float32Array[];
  width: number;
  height: number;
  crop: Crop;
  /** Sides of the tile. */
  sides: Sides;
  margins: MarginShares;
  /** Sides of the tile with its margins. */
  out: Sides;
  /** Values of the picture are held between these: sharp resampling overshoots. */
  held: { low: number; high?: number };
}

/** Rows of a crop, whichever way it lies in the photo; one plane a channel, in their place in `into`. */
export const resampleBand = task(
  'resampleBand',
  async (
    checkpoint: (done: number) => Promise<void>,
    { planes, width, height, crop, sides, margins, out, held }: Framing,
    into: Float32Array[],
    band: Band,
  ): Promise<void> => {
    const whole = new Raster(out.width, out.height, into);
    const raster = new Raster(width, height, planes);
    if (crop.corners || crop.bend) {
      const place = framePlace(width, height, crop, sides, margins);
      await resampleField(raster, out.width, out.height, place, MIRROR, checkpoint, band, whole);
    } else {
      const { grid, stretch } = samplingGrid(width, height, crop, sides, margins);
      await resampleAffine(raster, out.width, out.height, grid, stretch, MIRROR, checkpoint, band, whole);
    }
    for (const plane of into) {
      const rows = plane.subarray(band.from * out.width, band.to * out.width);
      KERNELS.sumPlanes([rows], [1], held, rows);
    }
  },
);
