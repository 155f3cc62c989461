import type { Raster } from '../raster/raster.ts';
import { mean } from '../statistics/statistics.ts';

/** A channel of a surface: one value for the whole tile, or one each pixel. */
export type SurfaceChannel = number | Float32Array;

/** What a surface is made of, without its shape. */
export interface Material {
  /** Base colour, linear RGB; the diffuse colour where `isF0Whole`. */
  colour: Raster;
  /** Perceptual roughness 0..1. */
  roughness: SurfaceChannel;
  /** 0..1; of no meaning where `isF0Whole`. */
  metallic: SurfaceChannel;
  /** Reflectance at normal incidence of what is not metal, linear RGB; of everything where `isF0Whole`. */
  f0: [number, number, number] | Raster;
  /** F0 was supplied as a map and is the whole of it, so that colour is diffuse and metallic follows from both. */
  isF0Whole: boolean;
  /** 0..1; null where the tile is opaque. */
  opacity: Float32Array | null;
  /** Linear RGB; null where nothing emits light. */
  emission: Raster | null;
}

/** A finished tile: everything that is exported and lit. */
export interface Surface extends Material {
  width: number;
  height: number;
  /** Height 0..1. */
  relief: Float32Array;
  /** Between 0 and 1 of the height, in mm. */
  depthMm: number;
  /** Unit vectors, −1..1: x right, y as the frame's green, z out. */
  normal: Raster;
  /** Visibility 0..1; null where it was not asked for. */
  occlusion: Float32Array | null;
  /** 0..1, flat is 0.5, hollows below. */
  cavity: Float32Array;
}

/** Outputs of stations that a surface is made of, before any coats. */
export interface SurfaceParts {
  style: { alpha: Float32Array | null; given: { emission?: Raster } };
  gauge: { albedo: Raster };
  relief: Pick<Surface, 'normal' | 'occlusion' | 'cavity' | 'depthMm'> & { height: Float32Array };
  finish: Pick<Surface, 'f0' | 'metallic'> & { roughness: SurfaceChannel; isTruth: boolean };
}

/** The tile from the outputs of its stations, before any coats. */
export const surfaceOf = ({ style, gauge, relief, finish }: SurfaceParts): Surface => ({
  width: gauge.albedo.width,
  height: gauge.albedo.height,
  colour: gauge.albedo,
  roughness: finish.roughness,
  metallic: finish.metallic,
  f0: finish.f0,
  isF0Whole: finish.isTruth,
  opacity: style.alpha,
  emission: style.given.emission ?? null,
  relief: relief.height,
  depthMm: relief.depthMm,
  normal: relief.normal,
  occlusion: relief.occlusion,
  cavity: relief.cavity,
});

/** The value of a channel at a pixel. */
export const channelAt = (channel: SurfaceChannel, i: number): number =>
  typeof channel === 'number' ? channel : channel[i];

/**
 * A channel as a plane and how far on in it the next pixel's value stands: 0 where one value is all there is. Loops over
 * planes alone are several times as quick as such that ask for each pixel which of both it is.
 */
export const strided = (channel: SurfaceChannel): { plane: Float32Array; step: 0 | 1 } =>
  typeof channel === 'number' ? { plane: Float32Array.of(channel), step: 0 } : { plane: channel, step: 1 };

/** A part of a channel's plane, or the one value that holds for all of it. */
export const partOf = (
  { plane, step }: ReturnType<typeof strided>,
  from: number,
  to: number,
): Float32Array => (step === 0 ? plane : plane.subarray(from, to));

/** A channel as one value each pixel. */
export const planeOfChannel = (channel: SurfaceChannel, count: number): Float32Array =>
  typeof channel === 'number' ? new Float32Array(count).fill(channel) : channel;

/** Mean of a channel over the tile. */
export const meanOfChannel = (channel: SurfaceChannel): number =>
  typeof channel === 'number' ? channel : mean(channel);
