import type { Raster } from '../../raster/raster.ts';

export interface EvenOutput {
  /** The crop with its margins, linear RGB, without the photo's own light. */
  picture: Raster;
  /** How much of each pixel was left as it was, 0..1; null where nothing was. */
  left: Float32Array | null;
}
