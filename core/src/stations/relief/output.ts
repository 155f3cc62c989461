import type { Raster } from '../../raster/raster.ts';
import type { ReliefSettings } from './settings.ts';

export interface ReliefOutput {
  /** 0..1; depth in mm lies between 0 and 1. */
  height: Float32Array;
  /** Between 0 and 1 of the height, in mm. */
  depthMm: number;
  /** Unit vectors, −1..1: x right, y as `relief.normalY` says, z out. */
  normal: Raster;
  /** Visibility 0..1. Null when it was not asked for. */
  occlusion: Float32Array | null;
  /** 0..1, flat is 0.5, hollows below. */
  cavity: Float32Array;
  /** How much of each pixel is joint, 0..1; null where none are carved. */
  joints: Float32Array | null;
  /** How many faces they close; null where none are carved. */
  faceCount: number | null;
  /** Log of the grey that tone is read from; made when asked for. */
  tone: () => Promise<Float32Array>;
  /** Six bands of detail of the grey that height is read from, fine to broad; made when asked for. */
  bands: () => Promise<Float32Array[]>;
  /** By which normal, cavity and occlusion follow from a height, for what changes it later. */
  shaping: {
    chosen: ReliefSettings;
    cavitySpread: number;
    isCavityGiven: boolean;
    isOcclusionGiven: boolean;
  };
}
