import type { Pixels } from '../../pixels/pixels.ts';
import type { Raster } from '../../raster/raster.ts';
import type { Given, GivenMap } from '../../tile/given.ts';

/** Samples of the photo and of the maps supplied with it. */
export interface SourceInput {
  pixels: Pixels;
  given: Partial<Record<GivenMap, Pixels>>;
}

export interface SourceOutput {
  /** Linear RGB reflectance as photographed. */
  picture: Raster;
  /** Opacity 0..1 where the file had any. */
  alpha: Float32Array | null;
  given: Given;
  originalWidth: number;
  originalHeight: number;
}
