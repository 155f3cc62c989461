import { gaussian } from '../../filters/gaussian.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import { interleave, type Samples } from '../../maps/encoded-planes.ts';
import { MAPS, type MapName } from '../../maps/maps.ts';
import { smallerMap } from '../../maps/smaller.ts';
import { mapped } from '../../planes/mapped.ts';
import type { Raster } from '../../raster/raster.ts';
import type { Sides } from '../../raster/sides.ts';
import type { Frame } from '../../tile/frame.ts';
import { sigmaOf } from '../relief/scale.ts';
import type { Channel, ProfileFile } from './profile.ts';

const LEAST_SIGMA = 0.3;

/** Rows that are packed at once: what is made on the way stays small beside the maps. */
export const BAND = 128;

/** Whether a file's colours stand in it sRGB encoded: an OpenEXR's are linear. */
export const isEncoded = ({ kind, format }: Pick<ProfileFile, 'kind' | 'format'>): boolean =>
  kind === 'colour' && format !== 'exr';

/** +1 where the green of a normal in a file points up. */
export const greenOfFile = ({ green }: Pick<ProfileFile, 'green'>, frame: Pick<Frame, 'green'>): 1 | -1 =>
  green === 'recipe' ? frame.green : green === 'up' ? 1 : -1;

/** Planes of rows `from`…`to` of a file, one a channel. */
export type Rows = (from: number, to: number) => Float32Array[];

/**
 * A file's planes, 0..1, as its codes stand for them, some rows at a time: colour sRGB encoded (linear in OpenEXR), normals
 * (n + 1)/2, data as it is. `rasterOf` gives the tile's maps at its own size.
 */
export function packer(
  file: ProfileFile,
  rasterOf: (map: MapName) => Raster,
  frame: Frame,
  { width, height }: Sides,
): Rows {
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
  const packed = (channel: Channel, k: number, from: number, to: number): Float32Array => {
    if (!('map' in channel)) return new Float32Array((to - from) * width).fill(channel.value);
    const { map, plane, turned } = channel;
    const part = (raster: Raster, c: number) => raster.planes[c].subarray(from * width, to * width);
    let values = part(at(map), plane);
    if (file.occlusion > 0 && k < 3 && MAPS[map].kind === 'colour') {
      const open = part(at('occlusion'), 0);
      values = mapped(values, (value, i) => value * (1 - file.occlusion * (1 - open[i])));
    }
    if (map === 'normal') {
      const sign = plane === 1 && greenOfFile(file, frame) !== frame.green ? -1 : 1;
      values = KERNELS.sumPlanes([values], [sign / 2], { base: 0.5 });
    } else if (isEncoded(file) && MAPS[map].kind === 'colour') values = KERNELS.encodeSrgbPlane(values);
    return turned ? KERNELS.sumPlanes([values], [-1], { base: 1 }) : values;
  };
  return (from, to) => file.channels.map((channel, k) => packed(channel, k, from, to));
}

/** Calls back with every band of rows, from the top. */
function inBands(rows: Rows, height: number, take: (planes: Float32Array[], from: number) => void) {
  for (let from = 0; from < height; from += BAND) take(rows(from, Math.min(height, from + BAND)), from);
}

/** A file's samples, interleaved: codes of its bits, or floats where its format holds those. */
export function samplesOf(rows: Rows, file: ProfileFile, { width, height }: Sides): Samples {
  const { bits, format } = file;
  const channels = file.channels.length;
  const length = width * height * channels;
  const out =
    format === 'exr'
      ? new Float32Array(length)
      : bits === 8
        ? new Uint8Array(length)
        : new Uint16Array(length);
  inBands(rows, height, (planes, from) => {
    const part = out.subarray(from * width * channels);
    if (part instanceof Float32Array) interleave(planes, part);
    else KERNELS.quantise(planes, bits === 8 ? 8 : 16, part);
  });
  return out;
}
