import type { Raster } from '../../../raster/raster.ts';
import type { SeamFigures } from '../../join/seam.ts';
import type { Corners } from '../points.ts';

/** Settings of Square that frame a piece of the photo. */
export interface Framing {
  centreX: number;
  centreY: number;
  share: number;
  turnDegrees: number;
  corners: Corners | null;
  bend: null;
}

/** A piece of the photo that is offered as the tile. */
export interface CropOffer {
  framing: Framing;
  /** For pieces of whole periods: cells in them, about, and by how much their pattern is changed so that it meets itself. */
  periods: { cells: number; stretch: number; shear: number; turn: number } | null;
  /** The piece as it would be repeated without any joining, its broad light removed. */
  picture: Raster;
  seams: SeamFigures;
  /** Share of the photo's area that the piece takes. */
  area: number;
}
