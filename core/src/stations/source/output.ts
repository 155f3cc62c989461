import type { Pixels } from '../../pixels/pixels.ts';
import type { Raster } from '../../raster/raster.ts';
import type { Given, GivenMap } from '../../tile/given.ts';

/** Samples of the photo and of the maps supplied with it. */
export interface SourceInput {
  pixels: Pixels;
  given: Partial<Record<GivenMap, Pixels>>;
  /** More shots of the same surface in other light. */
  shots: Pixels[];
}

/** What is known of the solution of several shots. */
export interface ShotsSolved {
  /** What the shots differ by from what is predicted, over the albedo. */
  residual: Float32Array;
  /** Share of pixels for which fewer than three shots could be used. */
  unsolved: number;
}

export interface SourceOutput {
  /** Linear RGB reflectance as photographed. */
  picture: Raster;
  /** Opacity 0..1 where the file had any. */
  alpha: Float32Array | null;
  given: Given;
  /** Null where there is one photo alone, or its shots could not be solved. */
  shots: ShotsSolved | null;
  originalWidth: number;
  originalHeight: number;
}
