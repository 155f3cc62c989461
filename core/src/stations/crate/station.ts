import { Raster } from '../../raster/raster.ts';
import { choice } from '../../settings/settings.ts';
import { seamFigures } from '../join/seam.ts';
import { NOTHING_TO_DECIDE, station } from '../types.ts';
import { MAP_KIND, type MapName, mapRaster, type TileOutputs, UNIFORM_MAPS } from './maps.ts';
import { PROFILE_NAMES, PROFILES } from './profiles.ts';
import { encodedPlanes, quantise } from './quantise.ts';

const settings = {
  profile: choice({
    label: 'Profile',
    help: 'separate: one file a map. packed: occlusion, roughness and metallic in red, green and blue of one file.',
    default: 'separate',
    options: PROFILE_NAMES,
    names: ['Separate maps', 'Packed occlusion, roughness, metallic'],
  }),
};

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
  async run(input: TileOutputs, chosen, _decided, _frame, context): Promise<CrateOutput> {
    const files: CrateFile[] = [];
    const seams: CrateOutput['seams'] = [];
    for (const file of PROFILES[chosen.profile]) {
      const rasters = file.maps.map((map) => mapRaster(input, map));
      if (rasters.some((raster) => raster === null)) continue;
      const encoded = () => file.maps.flatMap((map) => encodedPlanes(mapRaster(input, map)!, map));
      const { width, height } = rasters[0]!;
      const channels = rasters.reduce((sum, raster) => sum + (raster?.channels ?? 0), 0);
      files.push({
        ending: file.ending,
        maps: [...file.maps],
        kind: MAP_KIND[file.maps[0]],
        bits: file.bits,
        channels,
        width,
        height,
        samples: () => quantise(encoded(), file.bits),
      });
      for (const [k, map] of file.maps.entries()) {
        if (UNIFORM_MAPS.includes(map)) continue;
        const { seamX, seamY } = seamFigures(new Raster(width, height, encodedPlanes(rasters[k]!, map)));
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
    const worst = figures.reduce((a, b) => (b.value > a.value ? b : a), figures[0]);
    const count = output.files.length;
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
