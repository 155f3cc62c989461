import { MIRROR } from '../../raster/edges.ts';
import { Raster } from '../../raster/raster.ts';
import { type Band, resampleAffine, resampleField } from '../../raster/sample.ts';
import type { Sides } from '../shape.ts';
import { type Crop, framePlace, type MarginShares, samplingGrid } from './geometry.ts';

/** A picture, and the crop with margins that is to be taken from it at so many pixels. */
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
}

/** Rows of a crop, whichever way it lies in the photo; one plane a channel. */
export async function resampleBand(
  breathe: (done: number) => Promise<void>,
  { planes, width, height, crop, sides, margins, out }: Framing,
  band: Band,
): Promise<Float32Array[]> {
  const raster = new Raster(width, height, planes);
  if (crop.corners || crop.bend) {
    const place = framePlace(width, height, crop, sides, margins);
    return (await resampleField(raster, out.width, out.height, place, MIRROR, breathe, band)).planes;
  }
  const { grid, stretch } = samplingGrid(width, height, crop, sides, margins);
  return (await resampleAffine(raster, out.width, out.height, grid, stretch, MIRROR, breathe, band)).planes;
}
