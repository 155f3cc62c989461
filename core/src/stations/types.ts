import * as v from 'valibot';
import type { WorkContext } from '../engine/context.ts';
import type { Pixels } from '../pixels.ts';
import type { Edges } from '../raster/edges.ts';
import type { Raster } from '../raster/raster.ts';
import type { SettingsOf, Values } from '../settings/settings.ts';
import type { Verdict } from '../verdict.ts';
import type { Zone } from '../zones/zone.ts';
import type { Belonging } from './gauge/marks.ts';
import type { Given, GivenMap } from './given.ts';
import type { Repeat } from './proof/repeats.ts';
import type { Shape } from './shape.ts';

/** The stations that work today, in the order of the Course. */
export const STATION_NAMES = [
  'source',
  'square',
  'even',
  'join',
  'gauge',
  'relief',
  'finish',
  'proof',
  'crate',
] as const;
export type StationName = (typeof STATION_NAMES)[number];

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
  /** Parts of the tile that stations may treat apart. */
  zones: readonly Zone[];
  /** How far the crop is turned clockwise in the photo. */
  turnDegrees: number;
  /** +1 where the normal map's green points up in the picture. */
  green: 1 | -1;
}

/**
 * One step of the work. `Input` is what it reads (outputs of earlier stations), `Decided` what is
 * settled once at the working size and replayed at every size, `Output` what it makes.
 */
export interface Station<S extends SettingsOf, Input, Decided, Output> {
  name: StationName;
  /** One line: what the station is for. */
  line: string;
  settings: S;
  /** The shape of `Decided` as it stands in a recipe. */
  decision: v.GenericSchema<Decided>;
  /** What the decision hangs on, apart from the input: a dial not named here does not settle it anew. */
  decidesOn(settings: Values<S>, frame: Frame): unknown;
  /** Settles at the working size what must not depend on the output size. JSON data. */
  decide(input: Input, settings: Values<S>, frame: Frame, context: WorkContext): Promise<Decided> | Decided;
  run(
    input: Input,
    settings: Values<S>,
    decided: Decided,
    frame: Frame,
    context: WorkContext,
  ): Promise<Output>;
  /** Measured on the result. */
  verdict(
    output: Output,
    input: Input,
    settings: Values<S>,
    decided: Decided,
    frame: Frame,
    context: WorkContext,
  ): Verdict | Promise<Verdict>;
}

/** Keeps the type parameters of a station. */
export function station<S extends SettingsOf, I, D, O>(definition: Station<S, I, D, O>): Station<S, I, D, O> {
  return definition;
}

/** For stations with nothing to settle. */
export const NOTHING_TO_DECIDE = { decision: v.null(), decidesOn: () => null, decide: () => null };

export interface SourceInput {
  pixels: Pixels;
  given: Partial<Record<GivenMap, Pixels>>;
}
export interface SourceOutput {
  /** Linear RGB reflectance as photographed. */
  picture: Raster;
  /** Opacity 0..1 where the file had any. */
  alpha: Float32Array | null;
  given: Given;
  originalWidth: number;
  originalHeight: number;
}

/** How far a picture reaches beyond the crop on each side, in pixels of the result. */
export interface Margins {
  left: number;
  right: number;
  top: number;
  bottom: number;
}
export interface SquareOutput {
  /** The crop with what the photo holds around it. */
  picture: Raster;
  alpha: Float32Array | null;
  /** The same of each given map. */
  given: Given;
  margins: Margins;
  /** Pixels of the original along the crop's edge. */
  cropPixels: number;
  /** Share of the crop that lies outside the photo, 0..1. */
  outside: number;
}

export interface EvenOutput {
  picture: Raster;
  /** How much of each pixel was left as it was, 0..1; null where nothing was. */
  left: Float32Array | null;
}

export interface JoinOutput {
  /** The tile: linear RGB. */
  picture: Raster;
  alpha: Float32Array | null;
  /** The given maps through the same crop and cut. */
  given: Given;
  /** How far the tile is turned clockwise in the crop. */
  turnDegrees: number;
  /** The picture as it was before Even, through the same crop and cut; made when asked for. */
  before: () => Promise<Raster>;
}

export interface GaugeOutput {
  /** Base colour as it goes out. Where F0 was given as a map it is the diffuse colour instead. */
  albedo: Raster;
  /** The same before wet zones were darkened: what the chart speaks of. */
  dry: Raster;
  /** Which pixels belong to zones with lines of their own; null where there are none. */
  zones: Belonging | null;
  /** Names of zones that pick nothing. */
  empty: string[];
}

export interface ReliefOutput {
  /** 0..1; depth in mm lies between 0 and 1. */
  height: Float32Array;
  /** Unit vectors, −1..1: x right, y as `relief.normalY` says, z out. */
  normal: Raster;
  /** Visibility 0..1. Null when it was not asked for. */
  occlusion: Float32Array | null;
  /** 0..1, flat is 0.5, hollows below. */
  cavity: Float32Array;
  /** Six bands of detail of the grey that height is read from, fine to broad; made when asked for. */
  bands: () => Promise<Float32Array[]>;
}

export interface ProofOutput {
  /** Spots that will be seen repeating, strongest first. */
  repeats: Repeat[];
}

export interface FinishOutput {
  /** Perceptual roughness 0..1. */
  roughness: Float32Array;
  /** Reflectance at normal incidence of what is no metal, linear RGB: one value for the tile, or one each pixel. */
  f0: [number, number, number] | Raster;
  /** 0..1: one value for the tile, or one each pixel. */
  metallic: number | Float32Array;
  /** F0 was given as a map and is the whole of it; Gauge's colour is then the diffuse one. */
  isTruth: boolean;
}
