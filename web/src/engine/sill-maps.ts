import {
  albedoOf,
  type Frame,
  metallicChannel,
  planeOfChannel,
  Raster,
  resizeArea,
  type Surface,
  sidesOf,
} from '@zesty-tile/core';
import { News } from './news.ts';
import type { ShownMap, ShownMaps } from './protocol.ts';
import { rgbaOf } from './view-pictures.ts';

/** Longer edge of the height that the Sill displaces by. */
const HEIGHT_SIZE = 512;

function packedRgba(surface: Surface): ShownMap['rgba'] {
  const count = surface.width * surface.height;
  const roughness = planeOfChannel(surface.roughness, count);
  const metallic = planeOfChannel(metallicChannel(surface), count);
  const { occlusion } = surface;
  const out = new Uint8ClampedArray(4 * count);
  for (let i = 0, at = 0; i < count; i++, at += 4) {
    out[at] = occlusion ? 255 * occlusion[i] : 255;
    out[at + 1] = 255 * roughness[i];
    out[at + 2] = 255 * metallic[i];
    out[at + 3] = 255;
  }
  return out;
}

/** F0 that differs from place to place, brought to shares of its brightest. */
function specularMap({ planes, width, height }: Raster): ShownMaps['specular'] {
  let brightest = 1e-4;
  for (const plane of planes) for (const value of plane) brightest = Math.max(brightest, value);
  const shares = planes.map((plane) => plane.map((value) => value / brightest));
  return { map: { width, height, rgba: rgbaOf(new Raster(width, height, shares), 'specular') }, brightest };
}

/** What was sent of the current tile. */
export const sentMaps = new News<keyof ShownMaps>();

/** Those maps of the Sill that are not among what was sent; all of them where that is empty. */
export function newMaps(
  surface: Surface,
  frame: Frame,
  sent = new News<keyof ShownMaps>(),
): Partial<ShownMaps> {
  const { f0, normal, occlusion, roughness, metallic, opacity, emission, relief } = surface;
  const maps: Partial<ShownMaps> = {
    isMetal: metallic === 1,
    depthShare: surface.depthMm / 1000 / frame.edgeMetres,
    green: frame.green,
  };
  const { size } = frame;
  const sides = { width: frame.width, height: frame.height };
  const isNew = (key: keyof ShownMaps, ...from: unknown[]) => sent.is(key, size, ...from);
  const base = albedoOf(surface);
  if (isNew('albedo', base)) maps.albedo = { ...sides, rgba: rgbaOf(base, 'albedo') };
  if (Array.isArray(f0)) {
    maps.f0 = f0;
    if (isNew('specular', null)) maps.specular = null;
  } else if (isNew('specular', f0)) {
    maps.f0 = [0.04, 0.04, 0.04];
    maps.specular = specularMap(f0);
  }
  if (isNew('normal', normal)) maps.normal = { ...sides, rgba: rgbaOf(normal, 'normal') };
  if (isNew('packed', occlusion, roughness, metallic)) {
    maps.packed = { ...sides, rgba: packedRgba(surface) };
  }
  if (isNew('opacity', opacity)) {
    maps.opacity = opacity && {
      ...sides,
      rgba: rgbaOf(new Raster(sides.width, sides.height, [opacity]), 'opacity'),
    };
  }
  if (isNew('emission', emission)) {
    maps.emission = emission ? { ...sides, rgba: rgbaOf(emission, 'emission') } : null;
  }
  if (isNew('height', relief)) {
    const kept = sidesOf(frame.shape, Math.min(HEIGHT_SIZE, size));
    const whole = new Raster(sides.width, sides.height, [relief]);
    const height = resizeArea(whole, kept.width, kept.height);
    maps.height = { ...kept, values: height.planes[0].slice() };
  }
  return maps;
}
