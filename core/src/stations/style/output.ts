import type { Raster } from '../../raster/raster.ts';
import type { JoinOutput } from '../join/output.ts';

/** What height is read from, where the tile is repainted. */
export interface PaintedRelief {
  /** Which of Relief's sources it takes the place of. */
  from: 'tone' | 'light' | 'normals' | 'given';
  /** The simplified height: log grey for tone, a height of any scale otherwise. */
  height: Float32Array;
  /** The same of the bands chosen for occlusion; null where they are those of the height. */
  ofOcclusion: Float32Array | null;
  /** Six bands of the simplified height, fine to broad, before any is left out; made when asked for. */
  bands(): Promise<Float32Array[]>;
  /** Ridges of the strokes about 0, as shares of the height's range. */
  ridges: Float32Array;
}

/** The tile as Join left it, repainted as far as wanted. */
export interface StyleOutput extends JoinOutput {
  /** The tile as Join left it, linear RGB. */
  photo: Raster;
  /** Null where Relief is to read the tile itself. */
  relief: PaintedRelief | null;
  /** The repainted picture, linear RGB, wherever it is used; null where nothing is painted. */
  painted: Raster | null;
  /** The simplified picture under the strokes, OKLab; null where nothing is painted, and at sizes at which nobody looks at it. */
  simplified: Float32Array[] | null;
  /** Deviation of the fine lightness that is left in it. */
  fineLeft: number;
  /** Mean change of OKLab lightness by the painted light alone. */
  lightPainted: number;
}
