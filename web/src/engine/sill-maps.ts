import {
  albedoOf,
  metallicPlane,
  Raster,
  type Recipe,
  resizeArea,
  type StationOutputs,
  sidesOf,
  type TileOutputs,
} from '@zesty-tile/core';
import { News } from './news.ts';
import type { ShownMap, ShownMaps } from './protocol.ts';
import { rgbaOf } from './view-pictures.ts';

/** Longer edge of the height that the Sill displaces by. */
const HEIGHT_SIZE = 512;

function packedRgba(maps: TileOutputs): ShownMap['rgba'] {
  const { roughness } = maps.finish;
  const metallic = metallicPlane(maps);
  const occlusion = maps.relief.occlusion;
  const out = new Uint8ClampedArray(4 * roughness.length);
  for (let i = 0, at = 0; i < roughness.length; i++, at += 4) {
    out[at] = occlusion ? 255 * occlusion[i] : 255;
    out[at + 1] = 255 * roughness[i];
    out[at + 2] = 255 * (typeof metallic === 'number' ? metallic : metallic[i]);
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

/** What was sent of the tile in hand. */
export const sentMaps = new News<keyof ShownMaps>();

/** Those maps of the Sill that are not among what was sent; all of them where that is empty. */
export function newMaps(
  outputs: Partial<StationOutputs>,
  size: number,
  { square, relief: chosen }: Recipe['stations'],
  sent = new News<keyof ShownMaps>(),
): Partial<ShownMaps> | null {
  const { join, gauge, relief, finish } = outputs;
  if (!join || !gauge || !relief || !finish) return null;
  const maps: Partial<ShownMaps> = {
    isMetal: finish.metallic === 1,
    depthShare: chosen.depthMm / 1000 / square.edgeMetres,
    green: chosen.normalY === 'up' ? 1 : -1,
  };
  const sides = sidesOf(square.shape, size);
  const isNew = (key: keyof ShownMaps, ...from: unknown[]) => sent.is(key, size, ...from);
  const base = albedoOf({ gauge, finish });
  if (isNew('albedo', base)) maps.albedo = { ...sides, rgba: rgbaOf(base, 'albedo') };
  if (Array.isArray(finish.f0)) {
    maps.f0 = finish.f0;
    if (isNew('specular', null)) maps.specular = null;
  } else if (isNew('specular', finish.f0)) {
    maps.f0 = [0.04, 0.04, 0.04];
    maps.specular = specularMap(finish.f0);
  }
  if (isNew('normal', relief.normal)) maps.normal = { ...sides, rgba: rgbaOf(relief.normal, 'normal') };
  if (isNew('packed', relief.occlusion, finish.roughness, finish.metallic)) {
    maps.packed = { ...sides, rgba: packedRgba({ join, gauge, relief, finish }) };
  }
  if (isNew('opacity', join.alpha)) {
    maps.opacity = join.alpha && {
      ...sides,
      rgba: rgbaOf(new Raster(sides.width, sides.height, [join.alpha]), 'opacity'),
    };
  }
  if (isNew('emission', join.given.emission)) {
    const { emission } = join.given;
    maps.emission = emission ? { ...sides, rgba: rgbaOf(emission, 'emission') } : null;
  }
  if (isNew('height', relief.height)) {
    const held = sidesOf(square.shape, Math.min(HEIGHT_SIZE, size));
    const whole = new Raster(sides.width, sides.height, [relief.height]);
    const height = resizeArea(whole, held.width, held.height);
    maps.height = { ...held, values: height.planes[0].slice() };
  }
  return maps;
}
