import { mapped } from '../planes/mapped.ts';
import { Raster } from '../raster/raster.ts';
import { glossOf } from '../surface/convert.ts';
import {
  albedoOf,
  dielectricOf,
  diffuseColour,
  metallicChannel,
  specularColour,
} from '../surface/metalness.ts';
import { planeOfChannel, type Surface } from '../surface/surface.ts';
import type { MapName } from './maps.ts';

/** Maps that a tile does not have, without making those that it has. */
export function missingMaps({ opacity, emission, occlusion, f0, isF0Whole }: Surface): MapName[] {
  const missing: MapName[] = [];
  if (!opacity) missing.push('opacity');
  if (!emission) missing.push('emission');
  if (!occlusion) missing.push('occlusion');
  if (isF0Whole || Array.isArray(f0)) missing.push('dielectric');
  return missing;
}

/**
 * One map as a raster of values as the program computes with them: linear colour, data 0..1, normals −1..1.
 * Null where the tile does not have it (opacity without alpha, emission that was not supplied, occlusion not made yet, the
 * dielectric's F0 where it is one for the whole tile).
 */
export function mapRaster(surface: Surface, map: MapName): Raster | null {
  const { width, height } = surface;
  const one = (plane: Float32Array | null) => plane && new Raster(width, height, [plane]);
  switch (map) {
    case 'albedo':
      return albedoOf(surface);
    case 'normal':
      return surface.normal;
    case 'height':
      return one(surface.relief);
    case 'occlusion':
      return one(surface.occlusion);
    case 'cavity':
      return one(surface.cavity);
    case 'roughness':
      return one(planeOfChannel(surface.roughness, width * height));
    case 'gloss':
      return one(mapped(planeOfChannel(surface.roughness, width * height), glossOf));
    case 'metallic':
      return one(planeOfChannel(metallicChannel(surface), width * height));
    case 'specular':
      return specularColour(surface);
    case 'diffuse':
      return diffuseColour(surface);
    case 'opacity':
      return one(surface.opacity);
    case 'emission':
      return surface.emission;
    case 'dielectric':
      return dielectricOf(surface).share;
  }
}
