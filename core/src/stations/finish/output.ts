import type { Raster } from '../../raster/raster.ts';

export interface FinishOutput {
  /** Perceptual roughness 0..1. */
  roughness: Float32Array;
  /** Reflectance at normal incidence of what is not metal, linear RGB: one value for the tile, or one each pixel. */
  f0: [number, number, number] | Raster;
  /** 0..1: one value for the tile, or one each pixel. */
  metallic: number | Float32Array;
  /** F0 was supplied as a map and is the whole of it; Gauge's colour is then the diffuse one. */
  isTruth: boolean;
}
