import type { Raster } from '../../raster/raster.ts';
import type { Given } from '../../tile/given.ts';

/** How far a picture reaches beyond the crop on each side, in pixels of the result. */
export interface Margins {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

export interface SquareOutput {
  /** The crop with what the photo shows around it, linear RGB. */
  picture: Raster;
  /** Opacity 0..1 where the photo has any. */
  alpha: Float32Array | null;
  /** The same of each supplied map. */
  given: Given;
  margins: Margins;
  /** Pixels of the original along the crop's edge. */
  cropPixels: number;
  /** Share of the crop that lies outside the photo, 0..1. */
  outside: number;
}
