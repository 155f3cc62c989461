import { encodeSrgbPlane } from '../../colour/srgb.ts';
import { gaussian } from '../../filters/gaussian.ts';
import type { Raster } from '../../raster/raster.ts';
import { sigmaOf } from '../relief/scale.ts';
import { sidesOf } from '../shape.ts';
import type { Frame } from '../types.ts';
import { MAP_KIND, type MapName } from './maps.ts';
import type { ProfileFile } from './profile.ts';
import { smallerMap } from './smaller.ts';

const LEAST_SIGMA = 0.3;

/** Sides of a file: never above the tile's own. */
export const fileSides = ({ size }: ProfileFile, frame: Frame) =>
  sidesOf(frame.shape, size === 0 ? frame.size : Math.min(frame.size, size));

/**
 * A file's planes, 0..1, as its codes stand for them: colour sRGB encoded where the file is colour, normals (n + 1)/2,
 * data as it is. `rasterOf` gives the tile's maps at its own size.
 */
export function packedPlanes(
  file: ProfileFile,
  rasterOf: (map: MapName) => Raster,
  frame: Frame,
): Float32Array[] {
  const { width, height } = fileSides(file, frame);
  const sigma = sigmaOf(file.softMm, frame);
  const soften = (raster: Raster): Raster =>
    sigma > LEAST_SIGMA
      ? raster.mapPlanes((plane) => gaussian(plane, raster.width, raster.height, sigma, frame.edges))
      : raster;
  const known = new Map<MapName, Raster>();
  const at = (map: MapName): Raster => {
    let raster = known.get(map);
    if (!raster) {
      raster = smallerMap(map, (one) => (one === map ? soften(rasterOf(one)) : rasterOf(one)), width, height);
      known.set(map, raster);
    }
    return raster;
  };
  const isColour = file.kind === 'colour';
  return file.channels.map((channel, k) => {
    if (!('map' in channel)) return new Float32Array(width * height).fill(channel.value);
    const { map, plane, turned } = channel;
    let values = at(map).planes[plane];
    if (file.occlusion > 0 && k < 3 && MAP_KIND[map] === 'colour') {
      const [open] = at('occlusion').planes;
      values = values.map((value, i) => value * (1 - file.occlusion * (1 - open[i])));
    }
    if (map === 'normal') {
      const wanted = file.green === 'recipe' ? frame.green : file.green === 'up' ? 1 : -1;
      const sign = plane === 1 && wanted !== frame.green ? -1 : 1;
      values = values.map((value) => (sign * value + 1) / 2);
    } else if (isColour && MAP_KIND[map] === 'colour') values = encodeSrgbPlane(values);
    return turned ? values.map((value) => 1 - value) : values;
  });
}
