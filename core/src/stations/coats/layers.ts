import { Raster } from '../../raster/raster.ts';
import type { SurfaceChannel } from '../../surface/surface.ts';

/**
 * The surface as far as some coat: what the coats from there on see below them. A coat that changes a channel puts another
 * object in its place, even where it writes over planes that nobody else looks at.
 */
export interface Layers {
  /** Base colour, linear RGB. */
  colour: Raster;
  /** Perceptual roughness 0..1. */
  roughness: SurfaceChannel;
  /** 0..1. */
  metallic: SurfaceChannel;
  /** F0 of what is not metal, linear RGB. */
  f0: [number, number, number] | Raster;
  /** 0..1; null where the tile is opaque. */
  opacity: SurfaceChannel | null;
  /** Linear RGB; null where nothing emits light. */
  emission: Raster | null;
  /** Height in mm above the lowest point that Relief made. */
  heightMm: Float32Array;
}

/** Their names. */
export const LAYERS = [
  'colour',
  'roughness',
  'metallic',
  'f0',
  'opacity',
  'emission',
  'heightMm',
] as const satisfies readonly (keyof Layers)[];

/** What a coat can put something into. */
export const CHANNELS = ['colour', 'roughness', 'metallic', 'height', 'opacity', 'emission', 'f0'] as const;
export type Channel = (typeof CHANNELS)[number];

/** Channels whose values are colours; height is in mm, the others are single values 0..1. */
export const isColourChannel = (channel: Channel): channel is 'colour' | 'emission' | 'f0' =>
  channel === 'colour' || channel === 'emission' || channel === 'f0';

/** F0 as planes of these sides: those there are, or new ones of its colour. */
export const planesOfF0 = (
  f0: Layers['f0'],
  { width, height }: { width: number; height: number },
): readonly Float32Array[] =>
  f0 instanceof Raster ? f0.planes : f0.map((value) => new Float32Array(width * height).fill(value));
