import type { Mask } from '../masks/mask.ts';
import type { Edges } from '../raster/edges.ts';
import type { HeightReading } from './height-reading.ts';
import type { Shape } from './shape.ts';

/** Facts about the whole evaluation that any station may need. */
export interface Frame {
  /** Longer edge of the tile in pixels as it is made now: a preview's, or the wanted one. */
  size: number;
  /** Its sides in pixels. */
  width: number;
  height: number;
  shape: Shape;
  /** Longer edge in pixels that the recipe asks for. */
  wantedSize: number;
  /** Longer edge of the finished tile in metres. */
  edgeMetres: number;
  /** How the finished tile meets itself. */
  edges: Edges;
  seed: number;
  /** Named parts of the tile that stations may treat apart. */
  masks: readonly Mask[];
  /** How far the crop is turned clockwise in the photo. */
  turnDegrees: number;
  /** Pixels that the shorter side of the photo must keep for a tile of this size, when the photo is reduced. */
  photoShortEdge: number;
  /** +1 where the normal map's green points up in the picture. */
  green: 1 | -1;
  /** How height is read from the tile. */
  reading: HeightReading;
}
