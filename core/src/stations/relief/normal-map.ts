import { KERNELS } from '../../kernels/kernels.ts';
import { atOnce } from '../../raster/pausing.ts';
import type { Raster } from '../../raster/raster.ts';
import type { makingNormals } from './normal.ts';

/** `makingNormals` in one go. */
export const normalMap = (...given: Parameters<typeof makingNormals>): Raster =>
  atOnce(KERNELS.makingNormals(...given));
