import { luminance } from '../../planes/luminance.ts';
import type { Raster } from '../../raster/raster.ts';
import { resizeArea } from '../../sampling/resize.ts';
import { LOG_FLOOR } from './fit.ts';

/** Edge of the plane of the transform, and of the picture in it. */
export const SIDE_PLANE = 512;
const HELD = 480;

/** The logarithm of a picture's luminance, small, its mean 0; the same at every size of the picture. */
export interface SidePlane {
  width: number;
  height: number;
  logs: Float32Array;
}

export function sidePlane(picture: Raster): SidePlane {
  const scale = HELD / Math.max(picture.width, picture.height);
  const [width, height] = [Math.round(picture.width * scale), Math.round(picture.height * scale)];
  const logs = luminance(resizeArea(picture, width, height)).map((value) => Math.log(value + LOG_FLOOR));
  const mean = logs.reduce((sum, value) => sum + value, 0) / logs.length;
  return { width, height, logs: logs.map((value) => value - mean) };
}

/** Octaves in which shading is told from colour, by cycles over the plane: from so many, doubling. */
export const OCTAVES = 6;
const FIRST_CYCLES = 4;

/** The octave of a frequency, with a fraction; below 0 and above the last they are held. */
export const octaveOf = (cycles: number): number => Math.log2(cycles / FIRST_CYCLES);
