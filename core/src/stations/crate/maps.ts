import { Raster } from '../../raster/raster.ts';
import { diffuseOf, glossOf } from '../finish/convert.ts';
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
};

/** Maps that hold one value throughout, and so can show no seam. */
export const UNIFORM_MAPS: readonly MapName[] = ['specular', 'metallic'];

/** Outputs from which all maps follow. */
export interface TileOutputs {
  join: JoinOutput;
  gauge: GaugeOutput;
  relief: ReliefOutput;
  finish: FinishOutput;
}

/**
 * One map as a raster of values as they stand in the program: linear colour, data 0..1, normals −1..1.
 * Null where the tile has no such map (opacity without alpha, occlusion not made yet).
 */
export function mapRaster(outputs: TileOutputs, map: MapName): Raster | null {
  const { join, gauge, relief, finish } = outputs;
  const { width, height } = gauge.albedo;
  const one = (plane: Float32Array) => new Raster(width, height, [plane]);
  switch (map) {
    case 'albedo':
      return gauge.albedo;
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
      return one(finish.roughness.map(glossOf));
    case 'metallic':
      return Raster.filled(width, height, 1, finish.metallic);
    case 'specular':
      return Raster.filled(width, height, 3).mapPlanes((plane, c) => plane.fill(finish.f0[c]));
    case 'diffuse':
      return gauge.albedo.mapPlanes((plane) => plane.map((v) => diffuseOf(v, finish.metallic)));
    case 'opacity':
      return join.alpha ? one(join.alpha) : null;
  }
}
