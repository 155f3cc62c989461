import { mapRaster, missingMaps } from '../../maps/map-raster.ts';
import type { MapName } from '../../maps/maps.ts';
import type { Raster } from '../../raster/raster.ts';
import type { Surface } from '../../surface/surface.ts';
import { coats } from '../coats/station.ts';
import { NOTHING_TO_DECIDE, station } from '../station.ts';
import type { CrateFile, CrateOutput } from './output.ts';
import { greenOfFile, packer, samplesOf } from './pack.ts';
import { planCrate } from './plan.ts';
import { contentsOf, mapsOf } from './profiles.ts';
import { mapSeams } from './seams.ts';
import { settings } from './settings.ts';

/** Sides of a mip. */
export const mipSides = ({ width, height }: { width: number; height: number }, mip: number) => ({
  width: Math.max(1, width >> mip),
  height: Math.max(1, height >> mip),
});

/** Crate: which files are exported, and what is in each channel. */
export const crate = station({
  name: 'crate',
  line: 'Pack the maps as your renderer reads them.',
  settings,
  reads: [coats],
  shows: 'albedo',
  weight: 6,
  of: 'tile',
  measuredLast: true,
  ...NOTHING_TO_DECIDE,
  async run(surface: Surface, chosen, _decided, frame): Promise<CrateOutput> {
    const { pictures } = planCrate(chosen, missingMaps(surface), frame, { tile: 'tile', crate: 1 });
    const files = pictures.map(({ file, rung, width, height }): CrateFile => {
      // Maps are made when a file asks for them and released with it.
      const rowsAt = (sides: { width: number; height: number }) => {
        const made = new Map<MapName, Raster>();
        const rasterOf = (map: MapName): Raster => {
          const raster = made.get(map) ?? mapRaster(surface, map)!;
          made.set(map, raster);
          return raster;
        };
        return packer(file, rasterOf, frame, sides);
      };
      const { ending, format, bits, kind } = file;
      return {
        ending,
        format,
        bits,
        kind,
        maps: mapsOf(file),
        contents: contentsOf(file),
        channels: file.channels.length,
        channelMaps: file.channels.map((channel) => ('map' in channel ? channel.map : null)),
        rung,
        green: mapsOf(file).includes('normal') ? greenOfFile(file, frame) : null,
        width,
        height,
        rows: () => rowsAt({ width, height }),
        samples(mip = 0) {
          const sides = mipSides({ width, height }, mip);
          return samplesOf(rowsAt(sides), file, sides);
        },
      };
    });
    return { files };
  },
  async verdict(output, _input, chosen, _decided, frame, context) {
    const isEmpty = chosen.profile === 'own' && chosen.ownProfile === null;
    const none = isEmpty ? 'No custom profile is set: the files of “Separate maps” are exported.' : '';
    const seams = await mapSeams(output.files, context.checkpoint);
    const figures = seams.map(({ map, seamX, seamY }) => ({
      id: map,
      label: `Seam of ${map}`,
      value: Math.max(frame.edges.x === 'wrap' ? seamX : 0, frame.edges.y === 'wrap' ? seamY : 0),
      unit: '',
      limit: 1.3,
    }));
    const count = output.files.length;
    if (figures.length === 0) {
      return {
        state: isEmpty ? 'look' : 'fine',
        brief: `${count} files`,
        sentence: `${count} files of ${frame.wantedSize} px, each of one value, so no seam is possible.`,
        advice: none,
        figures,
      };
    }
    const worst = figures.reduce((a, b) => (b.value > a.value ? b : a), figures[0]);
    const isSeen = worst.value > 1.3;
    const state = isSeen || isEmpty ? 'look' : 'fine';
    return {
      state,
      brief: `${count} files`,
      sentence: `${count} files of ${frame.wantedSize} px. The strongest seam of any map is ${worst.value.toFixed(2)}, in ${worst.label.replace('Seam of ', '')}.`,
      advice: [none, isSeen ? 'Go back to Join: a seam in any map is seen when it is lit.' : '']
        .filter(Boolean)
        .join(' '),
      figures,
    };
  },
});
