import * as v from 'valibot';
import { blurring } from '../../filters/gaussian.ts';
import { summing } from '../../planes/summing.ts';
import type { Edges } from '../../raster/edges.ts';
import type { Sides } from '../../raster/sides.ts';
import { statistics } from '../../statistics/statistics.ts';
import type { Checkpoint } from '../../work/checkpoint.ts';
import { runSteps } from '../../work/steps.ts';
import type { BandShare } from './band-sum.ts';
import { weightedSum } from './bands.ts';

/** What height is made of, made when it is asked for. */
export interface RawHeight {
  /** Log of the grey that tone is read from: without paint, and with joints filled. */
  tone(): Promise<Float32Array>;
  /** Six bands of log grey. */
  bands(): Promise<Float32Array[]>;
  /** Their sum, for sizes at which they should not be held together. */
  bandSum: ((shares: readonly BandShare[]) => Promise<Float32Array>) | null;
  /** Height by the shading of slanting light, of any scale. */
  slant(): Promise<Float32Array>;
  /** Height whose slopes are those of a given normal map, as shares of the longer edge; null where none was given. */
  normals: (() => Promise<Float32Array>) | null;
  /** The given height; null where there is none. */
  given: Float32Array | null;
}

/** From what height can be read. */
export type HeightSource = 'tone' | 'light' | 'normals' | 'given';

export interface HeightShape {
  /** Shares come to 1. */
  parts: { from: HeightSource; share: number }[];
  weights: number[];
  isDarkHigh: boolean;
  /** How much of broad swelling is removed, 0..1. */
  flatten: number;
  /** Smoothing, in pixels. */
  softSigma: number;
  /** In spreads of the finest band. */
  noiseFloor: number;
}

export const spreadsSchema = v.strictObject({
  /** Deviation of height by each source: where several are mixed they count as alike. 0 where it is not read. */
  tone: v.number(),
  light: v.number(),
  normals: v.number(),
  given: v.number(),
  /** Deviation of the two finest bands. */
  fine: v.tuple([v.number(), v.number()]),
});
export type Spreads = v.InferOutput<typeof spreadsSchema>;

/** Share of height by light, where tone and light are taken and nothing else is said. */
export const LIGHT_SHARE = 0.4;
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

/** Bands by their weights, the finest without their noise. */
async function toneSum(
  raw: RawHeight,
  shape: HeightShape,
  fine: Spreads['fine'],
  checkpoint: Checkpoint,
): Promise<Float32Array> {
  const shares = shape.weights.map(
    (weight, level): BandShare => ({
      weight: shape.isDarkHigh ? -weight : weight,
      clean: (band) =>
        shape.noiseFloor > 0 && level < fine.length ? cored(band, shape.noiseFloor * fine[level]) : band,
    }),
  );
  if (raw.bandSum) return raw.bandSum(shares);
  const bands: Float32Array[] = [];
  for (const [level, band] of (await raw.bands()).entries()) {
    bands.push(shares[level].clean(band));
    await checkpoint(0);
  }
  return runSteps(
    weightedSum(
      bands,
      shares.map(({ weight }) => weight),
    ),
    checkpoint,
  );
}

/** The parts that are available: where there is no normal map or height to read from, tone takes its place. */
export function partsOf(raw: RawHeight, { parts }: HeightShape): HeightShape['parts'] {
  const had = parts.map(({ from, share }) => ({
    from: (from === 'normals' && !raw.normals) || (from === 'given' && !raw.given) ? ('tone' as const) : from,
    share,
  }));
  return had.filter(({ share }) => share > 0);
}

/** Measures at the working size what must be the same at every size; tone too where `withTone` asks for it. */
export async function spreadsOf(
  raw: RawHeight,
  shape: HeightShape,
  checkpoint: Checkpoint,
  withTone = false,
): Promise<Spreads> {
  const read = partsOf(raw, shape).map(({ from }) => from);
  const bands = withTone || read.includes('tone') ? await raw.bands() : null;
  const fine: Spreads['fine'] = bands
    ? [statistics(bands[0]).deviation, statistics(bands[1]).deviation]
    : [0, 0];
  const deviation = async (from: HeightSource, make: () => Promise<Float32Array> | Float32Array) =>
    read.includes(from) ? statistics(await make()).deviation : 0;
  return {
    tone: bands ? statistics(await toneSum(raw, shape, fine, checkpoint)).deviation : 0,
    light: await deviation('light', raw.slant),
    normals: await deviation('normals', () => raw.normals!()),
    given: await deviation('given', () => raw.given!),
    fine,
  };
}

async function heightBy(
  from: HeightSource,
  raw: RawHeight,
  shape: HeightShape,
  fine: Spreads['fine'],
  checkpoint: Checkpoint,
): Promise<Float32Array> {
  switch (from) {
    case 'tone':
      return toneSum(raw, shape, fine, checkpoint);
    case 'light':
      return raw.slant();
    case 'normals':
      return raw.normals!();
    case 'given':
      return raw.given!;
  }
}

/** Height of any scale: from one source or mixed from several, flattened and smoothed as asked. */
export async function shapedHeight(
  raw: RawHeight,
  shape: HeightShape,
  spreads: Spreads,
  { width, height }: Sides,
  edges: Edges,
  checkpoint: Checkpoint,
): Promise<Float32Array> {
  const parts = partsOf(raw, shape);
  let sum: Float32Array;
  if (parts.length === 1) sum = await heightBy(parts[0].from, raw, shape, spreads.fine, checkpoint);
  else {
    sum = new Float32Array(width * height);
    for (const { from, share } of parts) {
      // What does not vary has no part in it.
      const gain = spreads[from] > FLAT ? share / spreads[from] : 0;
      if (gain === 0) continue;
      const own = await heightBy(from, raw, shape, spreads.fine, checkpoint);
      await runSteps(summing([sum, own], [1, gain], {}, sum), checkpoint);
    }
  }
  if (shape.flatten > 0) {
    const broad = await runSteps(
      blurring(sum, width, height, Math.max(width, height) * BROAD, edges),
      checkpoint,
    );
    sum = await runSteps(summing([sum, broad], [1, -shape.flatten], {}, broad), checkpoint);
  }
  if (shape.softSigma <= LEAST_SIGMA) return sum;
  return runSteps(blurring(sum, width, height, shape.softSigma, edges), checkpoint);
}
