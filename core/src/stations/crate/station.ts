import { gaussian } from '../../filters/gaussian.ts';
import { Raster } from '../../raster/raster.ts';
import { resizeArea } from '../../raster/resize.ts';
import { statistics } from '../../raster/statistics.ts';
import { choice, number, type Values } from '../../settings/settings.ts';
import { seamFigures } from '../join/seam.ts';
import { sigmaOf } from '../relief/scale.ts';
import { sidesOf } from '../shape.ts';
import { type Frame, NOTHING_TO_DECIDE, station } from '../types.ts';
import { MAP_KIND, type MapName, mapRaster, type TileOutputs } from './maps.ts';
import { PROFILE_NAMES, PROFILES } from './profiles.ts';
import { encodedPlanes, quantise } from './quantise.ts';

const settings = {
  profile: choice({
    label: 'Profile',
    help: 'separate: one file a map. packed: occlusion, roughness and metallic in red, green and blue of one file. specular-gloss: diffuse, specular and gloss in place of albedo, metallic and roughness.',
    default: 'separate',
    options: PROFILE_NAMES,
    names: ['Separate maps', 'Packed occlusion, roughness, metallic', 'Diffuse, specular, gloss'],
  }),
  normalBits: choice({
    label: 'Normal bits',
    help: 'Bits a channel of the normal map: 16 hold gentle slopes without steps.',
    group: 'Sizes of their own',
    default: 8,
    options: [8, 16],
    names: ['8 bit', '16 bit'],
  }),
  heightSize: choice({
    label: 'Height size',
    help: 'Longer edge of the height file, never above the tile’s own: for parallax a small, soft one looks better.',
    group: 'Sizes of their own',
    default: 0,
    options: [0, 2048, 1024, 512, 256, 128],
    names: ['As the tile', '2048 px', '1024 px', '512 px', '256 px', '128 px'],
  }),
  heightSoftMm: number({
    label: 'Height soft',
    help: 'Detail finer than this is smoothed out of the height file; the other maps keep theirs.',
    group: 'Sizes of their own',
    default: 0,
    min: 0,
    max: 100,
    step: 0.5,
    unit: 'mm',
  }),
};

/** The height as its file holds it: smoothed, and brought down. */
function heightFile(height: Raster, chosen: Values<typeof settings>, frame: Frame): Raster {
  const sigma = sigmaOf(chosen.heightSoftMm, frame);
  const soft =
    sigma > LEAST_SIGMA
      ? height.mapPlanes((plane) => gaussian(plane, height.width, height.height, sigma, frame.edges))
      : height;
  const longer = chosen.heightSize === 0 ? frame.size : Math.min(frame.size, chosen.heightSize);
  const { width, height: down } = sidesOf(frame.shape, longer);
  return resizeArea(soft, width, down);
}

const LEAST_SIGMA = 0.3;

/** Whether a map holds one value, so that it can show no seam. */
const isUniform = ({ planes }: Raster): boolean =>
  planes.every((plane) => {
    const { min, max } = statistics(plane);
    return max === min;
  });

/** One picture of a crate, ready to be encoded. `samples` makes it when it is its turn. */
export interface CrateFile {
  ending: string;
  maps: MapName[];
  kind: 'colour' | 'data';
  bits: 8 | 16;
  channels: number;
  width: number;
  height: number;
  samples(): Uint8Array | Uint16Array;
}

export interface CrateOutput {
  files: CrateFile[];
  /** Maps that go out and are not of one value, each with its seam figures measured on the values as they stand in the file. */
  seams: { map: MapName; seamX: number; seamY: number }[];
}

/** Crate: which files go out, and what is in each channel. */
export const crate = station({
  name: 'crate',
  line: 'Pack the maps as your renderer reads them.',
  settings,
  ...NOTHING_TO_DECIDE,
  async run(input: TileOutputs, chosen, _decided, frame, context): Promise<CrateOutput> {
    const rasterOf = (map: MapName) => {
      const raster = mapRaster(input, map);
      return raster && map === 'height' ? heightFile(raster, chosen, frame) : raster;
    };
    const files: CrateFile[] = [];
    const seams: CrateOutput['seams'] = [];
    for (const file of PROFILES[chosen.profile]) {
      const rasters = file.maps.map(rasterOf);
      if (rasters.some((raster) => raster === null)) continue;
      const encoded = () => file.maps.flatMap((map) => encodedPlanes(rasterOf(map)!, map));
      const bits = file.ending === 'normal' ? chosen.normalBits : file.bits;
      const { width, height } = rasters[0]!;
      const channels = rasters.reduce((sum, raster) => sum + (raster?.channels ?? 0), 0);
      files.push({
        ending: file.ending,
        maps: [...file.maps],
        kind: MAP_KIND[file.maps[0]],
        bits,
        channels,
        width,
        height,
        samples: () => quantise(encoded(), bits),
      });
      for (const [k, map] of file.maps.entries()) {
        const raster = rasters[k]!;
        if (isUniform(raster)) continue;
        const { seamX, seamY } = seamFigures(
          new Raster(raster.width, raster.height, encodedPlanes(raster, map)),
        );
        seams.push({ map, seamX, seamY });
        await context.breathe(files.length / PROFILES[chosen.profile].length);
      }
    }
    return { files, seams };
  },
  verdict(output, _input, _chosen, _decided, frame) {
    const figures = output.seams.map(({ map, seamX, seamY }) => ({
      id: map,
      label: `Seam of ${map}`,
      value: Math.max(frame.edges.x === 'wrap' ? seamX : 0, frame.edges.y === 'wrap' ? seamY : 0),
      unit: '',
      limit: 1.3,
    }));
    const count = output.files.length;
    if (figures.length === 0) {
      return {
        state: 'fine',
        brief: `${count} files`,
        sentence: `${count} files of ${frame.wantedSize} px, each of one value: there is nothing that could show a seam.`,
        advice: '',
        figures,
      };
    }
    const worst = figures.reduce((a, b) => (b.value > a.value ? b : a), figures[0]);
    const state = worst.value <= 1.3 ? 'fine' : 'look';
    return {
      state,
      brief: `${count} files`,
      sentence: `${count} files of ${frame.wantedSize} px. The strongest seam of any map is ${worst.value.toFixed(2)}, in ${worst.label.replace('Seam of ', '')}.`,
      advice: state === 'fine' ? '' : 'Go back to Join: a seam in any map is seen when it is lit.',
      figures,
    };
  },
});
