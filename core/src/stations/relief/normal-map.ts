import { KERNELS } from '../../kernels/kernels.ts';
import type { makingNormals } from '../../kernels/normals/reference.ts';
import type { Raster } from '../../raster/raster.ts';
import { runToEnd } from '../../work/steps.ts';

/** `makingNormals` in one go. */
export const normalMap = (...given: Parameters<typeof makingNormals>): Raster =>
  runToEnd(KERNELS.makingNormals(...given));
