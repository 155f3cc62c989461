import type { Raster } from '../../raster/raster.ts';
import type { Given } from '../../tile/given.ts';

export interface JoinOutput {
  /** The tile: linear RGB. */
  picture: Raster;
  /** Opacity 0..1 where the photo has any. */
  alpha: Float32Array | null;
  /** The supplied maps through the same crop and cut. */
  given: Given;
  /** How far the tile is turned clockwise in the crop. */
  turnDegrees: number;
  /** The picture as it was before Even, through the same crop and cut; made when asked for. */
  before: () => Promise<Raster>;
}
