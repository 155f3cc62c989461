import { mapped } from '../../raster/mapped.ts';
import { Raster } from '../../raster/raster.ts';
import { statistics } from '../../raster/statistics.ts';
import { diffuseOf, f0Of, glossOf, toMetallic, USUAL_F0 } from '../finish/convert.ts';
import type { FinishOutput, GaugeOutput, JoinOutput, ReliefOutput } from '../types.ts';

/** Every map a tile has. */
export const MAP_NAMES = [
  'albedo',
  'normal',
  'height',
  'occlusion',
  'cavity',
  'roughness',
  'gloss',
  'specular',
  'metallic',
  'diffuse',
  'opacity',
  'emission',
  'dielectric',
] as const;
export type MapName = (typeof MAP_NAMES)[number];

/** Colour goes out through the sRGB curve; data never does. */
export const MAP_KIND: Record<MapName, 'colour' | 'data'> = {
  albedo: 'colour',
  normal: 'data',
  height: 'data',
  occlusion: 'data',
  cavity: 'data',
  roughness: 'data',
  gloss: 'data',
  specular: 'colour',
  metallic: 'data',
  diffuse: 'colour',
  opacity: 'data',
  emission: 'colour',
  dielectric: 'colour',
};

/** Outputs from which all maps follow. */
export interface TileOutputs {
  join: JoinOutput;
  gauge: GaugeOutput;
  relief: ReliefOutput;
  finish: FinishOutput;
}

const pairs = new WeakMap<Raster, { f0: Raster; base: Raster; metallic: Float32Array }>();

/** Base colour and metallic where diffuse and F0 colour were given; made once for both. */
function pairOf(diffuse: Raster, f0: Raster) {
  const kept = pairs.get(diffuse);
  if (kept?.f0 === f0) return kept;
  const { base, metallic } = toMetallic(diffuse.planes, f0.planes);
  const made = { f0, base: new Raster(diffuse.width, diffuse.height, base), metallic };
  pairs.set(diffuse, made);
  return made;
}

/** The whole F0 where it was given as a map; else null. */
const givenF0 = ({ f0, isTruth }: FinishOutput): Raster | null => (isTruth && !Array.isArray(f0) ? f0 : null);

/** Base colour, as metallic and roughness go with it. */
export function albedoOf({ gauge, finish }: Pick<TileOutputs, 'gauge' | 'finish'>): Raster {
  const f0 = givenF0(finish);
  return f0 ? pairOf(gauge.albedo, f0).base : gauge.albedo;
}

/** Metallic 0..1: one value, or one each pixel. */
export function metallicPlane({
  gauge,
  finish,
}: Pick<TileOutputs, 'gauge' | 'finish'>): number | Float32Array {
  const f0 = givenF0(finish);
  return f0 ? pairOf(gauge.albedo, f0).metallic : finish.metallic;
}

const valueAt = (of: number | Float32Array, i: number) => (typeof of === 'number' ? of : of[i]);

function diffuse({ gauge, finish }: TileOutputs): Raster {
  if (givenF0(finish)) return gauge.albedo;
  const { metallic } = finish;
  if (metallic === 0) return gauge.albedo;
  return gauge.albedo.mapPlanes((plane) =>
    mapped(plane, (value, i) => diffuseOf(value, valueAt(metallic, i))),
  );
}

/**
 * F0 of what is no metal, for files whose renderer mixes it with the base colour itself: the brightest of the tile, and
 * where it differs from place to place each pixel's share of that, linear. Where F0 was given as the whole of it, what is
 * no metal has the usual one.
 */
export function dielectricOf({ f0, isTruth }: FinishOutput): {
  brightest: [number, number, number];
  share: Raster | null;
} {
  if (isTruth) return { brightest: [USUAL_F0, USUAL_F0, USUAL_F0], share: null };
  if (Array.isArray(f0)) return { brightest: f0, share: null };
  const top = f0.planes.map((plane) => Math.max(1e-6, statistics(plane).max));
  return {
    brightest: [top[0], top[1], top[2]],
    share: f0.mapPlanes((plane, c) => mapped(plane, (value) => value / top[c])),
  };
}

/** F0 as a colour, of metal and all else. */
function specular({ gauge, finish }: TileOutputs): Raster {
  const whole = givenF0(finish);
  if (whole) return whole;
  const { f0, metallic } = finish;
  // Of a grey one all channels are the same plane.
  const filled = new Map<number, Float32Array>();
  const flat = (value: number, count: number) => {
    const plane = filled.get(value) ?? new Float32Array(count).fill(value);
    filled.set(value, plane);
    return plane;
  };
  return gauge.albedo.mapPlanes((base, c) => {
    const own = Array.isArray(f0) ? f0[c] : f0.planes[c];
    if (metallic === 1) return base;
    if (metallic === 0) return typeof own === 'number' ? flat(own, base.length) : own;
    return mapped(base, (value, i) => f0Of(value, valueAt(metallic, i), valueAt(own, i)));
  });
}

/** Maps that a tile has not, without making those that it has. */
export function missingMaps({
  join,
  relief,
  finish,
}: Pick<TileOutputs, 'join' | 'relief' | 'finish'>): MapName[] {
  const missing: MapName[] = [];
  if (!join.alpha) missing.push('opacity');
  if (!join.given.emission) missing.push('emission');
  if (!relief.occlusion) missing.push('occlusion');
  if (finish.isTruth || Array.isArray(finish.f0)) missing.push('dielectric');
  return missing;
}

/**
 * One map as a raster of values as they stand in the program: linear colour, data 0..1, normals −1..1.
 * Null where the tile has no such map (opacity without alpha, emission that was not given, occlusion not made yet, the
 * dielectric's F0 where it is one for the whole tile).
 */
export function mapRaster(outputs: TileOutputs, map: MapName): Raster | null {
  const { join, gauge, relief, finish } = outputs;
  const { width, height } = gauge.albedo;
  const one = (plane: Float32Array) => new Raster(width, height, [plane]);
  switch (map) {
    case 'albedo':
      return albedoOf(outputs);
    case 'normal':
      return relief.normal;
    case 'height':
      return one(relief.height);
    case 'occlusion':
      return relief.occlusion ? one(relief.occlusion) : null;
    case 'cavity':
      return one(relief.cavity);
    case 'roughness':
      return one(finish.roughness);
    case 'gloss':
      return one(mapped(finish.roughness, glossOf));
    case 'metallic': {
      const metallic = metallicPlane(outputs);
      return typeof metallic === 'number' ? Raster.filled(width, height, 1, metallic) : one(metallic);
    }
    case 'specular':
      return specular(outputs);
    case 'diffuse':
      return diffuse(outputs);
    case 'opacity':
      return join.alpha ? one(join.alpha) : null;
    case 'emission':
      return join.given.emission ?? null;
    case 'dielectric':
      return dielectricOf(finish).share;
  }
}
