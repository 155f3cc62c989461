import * as v from 'valibot';
import { gaussian } from '../../filters/gaussian.ts';
import type { Edges } from '../../raster/edges.ts';
import { statistics } from '../../raster/statistics.ts';
import type { Sides } from '../shape.ts';
import { weightedSum } from './bands.ts';

/** What height is made of, made when it is asked for. */
export interface RawHeight {
  /** Six bands of log grey. */
  bands(): Promise<Float32Array[]>;
  /** Height by the shading of slanting light, of any scale. */
  slant(): Promise<Float32Array>;
  /** Height whose slopes are those of a given normal map, as shares of the longer edge; null where none was given. */
  normals: (() => Promise<Float32Array>) | null;
}

export interface HeightShape {
  from: 'tone' | 'light' | 'both' | 'normals';
  weights: number[];
  isDarkHigh: boolean;
  /** How much of broad swelling is taken out, 0..1. */
  flatten: number;
  /** Smoothing, in pixels. */
  softSigma: number;
  /** In spreads of the finest band. */
  noiseFloor: number;
}

export const spreadsSchema = v.strictObject({
  /** Deviation of the band sum and of the height by light: where both are mixed they count as alike. */
  tone: v.number(),
  light: v.number(),
  /** Deviation of the two finest bands. */
  fine: v.tuple([v.number(), v.number()]),
});
export type Spreads = v.InferOutput<typeof spreadsSchema>;

/** Shares of height by light and by tone, where both are taken. */
const LIGHT_SHARE = 0.4;
const BROAD = 1 / 8;
const LEAST_SIGMA = 0.3;
const FLAT = 1e-6;

/** A value below about the floor is drawn to nothing, one well above it stays (Wiener-like coring). */
function cored(band: Float32Array, floor: number): Float32Array {
  const square = floor * floor;
  const out = new Float32Array(band.length);
  for (let i = 0; i < out.length; i++) {
    const value = band[i];
    out[i] = (value * value * value) / (value * value + square + 1e-12);
  }
  return out;
}

function toneSum(bands: Float32Array[], shape: HeightShape, fine: Spreads['fine']): Float32Array {
  const clean =
    shape.noiseFloor > 0
      ? bands.map((band, k) => (k < fine.length ? cored(band, shape.noiseFloor * fine[k]) : band))
      : bands;
  const sum = weightedSum(clean, shape.weights);
  if (shape.isDarkHigh) for (let i = 0; i < sum.length; i++) sum[i] = -sum[i];
  return sum;
}

const readsLight = ({ from }: HeightShape) => from === 'light' || from === 'both';
/** Where there is no normal map to read from, tone stands in for it. */
const readsTone = (raw: RawHeight, { from }: HeightShape) =>
  from === 'tone' || from === 'both' || (from === 'normals' && !raw.normals);

/** Measures at the working size what must be the same at every size. */
export async function spreadsOf(raw: RawHeight, shape: HeightShape): Promise<Spreads> {
  const bands = readsTone(raw, shape) ? await raw.bands() : null;
  const fine: Spreads['fine'] = bands
    ? [statistics(bands[0]).deviation, statistics(bands[1]).deviation]
    : [0, 0];
  return {
    tone: bands ? statistics(toneSum(bands, shape, fine)).deviation : 0,
    light: readsLight(shape) ? statistics(await raw.slant()).deviation : 0,
    fine,
  };
}

/** Height of any scale: by tone, by slanting light or both, flattened and smoothed as asked. */
export async function shapedHeight(
  raw: RawHeight,
  shape: HeightShape,
  spreads: Spreads,
  { width, height }: Sides,
  edges: Edges,
): Promise<Float32Array> {
  const tone = readsTone(raw, shape) ? toneSum(await raw.bands(), shape, spreads.fine) : null;
  const light = readsLight(shape) ? await raw.slant() : null;
  let sum = tone ?? light ?? (await raw.normals!());
  if (tone && light) {
    // What does not vary has no part in it.
    const [a, b] = [
      spreads.light > FLAT ? LIGHT_SHARE / spreads.light : 0,
      spreads.tone > FLAT ? (1 - LIGHT_SHARE) / spreads.tone : 0,
    ];
    sum = tone.map((value, i) => b * value + a * light[i]);
  }
  if (shape.flatten > 0) {
    const broad = gaussian(sum, width, height, Math.max(width, height) * BROAD, edges);
    sum = sum.map((value, i) => value - shape.flatten * broad[i]);
  }
  return shape.softSigma > LEAST_SIGMA ? gaussian(sum, width, height, shape.softSigma, edges) : sum;
}
