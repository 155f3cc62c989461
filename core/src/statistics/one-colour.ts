import type { Raster } from '../raster/raster.ts';
import { readStep } from './thinned.ts';

/** Values nearer to each other than this are one: a fraction of an eight-bit code. */
const SAME = 1 / 2048;

function isOneValue(plane: Float32Array): boolean {
  const apart = readStep(plane.length);
  for (let i = 0; i < plane.length; i += apart) if (Math.abs(plane[i] - plane[0]) >= SAME) return false;
  return true;
}

/** Whether all pixels of a raster have the same values, as those of a tile that starts from one colour. Linear values, 0..1; of large rasters every so many pixels are read. */
export const isOneColour = ({ planes }: Pick<Raster, 'planes'>): boolean => planes.every(isOneValue);
