import * as v from 'valibot';
import { Raster } from '../../raster/raster.ts';
import { statistics } from '../../raster/statistics.ts';
import { choice, data, number, type Values } from '../../settings/settings.ts';
import { seamFigures } from '../join/seam.ts';
import { NOTHING_TO_DECIDE, station } from '../types.ts';
import { type MapName, mapRaster, missingMaps, type TileOutputs } from './maps.ts';
import { fileSides, packedPlanes } from './pack.ts';
import { type Profile, type ProfileFile, profileProblems, profileSchema } from './profile.ts';
import { contentsOf, filesWithout, mapsOf, PROFILE_NAMES, PROFILES, type ProfileName } from './profiles.ts';
import { quantise } from './quantise.ts';

const settings = {
  profile: choice({
    label: 'Profile',
    help: 'separate: one file a map. packed: occlusion, roughness and metallic in red, green and blue of one file. specular-gloss: diffuse, specular and gloss in place of albedo, metallic and roughness. normal-gloss: the same with gloss in the normal’s alpha. two-maps: colour with occlusion in it, and normal. own: as ownProfile says.',
    default: 'separate',
    options: [...PROFILE_NAMES, 'own'],
    names: [...PROFILE_NAMES.map((name) => PROFILES[name].name), 'Own'],
  }),
  ownProfile: data<Profile | null>({
    label: 'Own profile',
    group: 'Own profile',
    help: 'Which files go out and what stands in each channel, where the profile is “own”. Kept whole, so that a recipe stands alone.',
    default: null,
    schema: v.nullable(
      v.pipe(
        profileSchema,
        v.check(
          (value) => profileProblems(value).length === 0,
          ({ input }) => profileProblems(input)[0] ?? '',
        ),
      ),
    ),
    example: JSON.stringify({ name: 'Ours', files: [PROFILES.packed.files[2]] }),
    words: (value) => value?.name ?? 'none',
  }),
  colourOcclusion: number({
    label: 'Occlusion in colour',
    help: 'How much of the occlusion is multiplied into the colour of “two-maps”, for renderers that know none.',
    group: 'Sizes of their own',
    default: 0.5,
    min: 0,
    max: 1,
    step: 0.05,
    unit: '',
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

/** Whether a map holds one value, so that it can show no seam. */
const isUniform = ({ planes }: Raster): boolean =>
  planes.every((plane) => {
    const { min, max } = statistics(plane);
    return max === min;
  });

/** One picture of a crate, ready to be encoded. `samples` makes it when it is its turn. */
export interface CrateFile extends Pick<ProfileFile, 'ending' | 'format' | 'bits' | 'kind'> {
  maps: MapName[];
  /** What stands in each channel, briefly. */
  contents: string[];
  channels: number;
  width: number;
  height: number;
  samples(): Uint8Array | Uint16Array;
}

type CrateSettings = Values<typeof settings>;

/** The profile in force; the dials of the height and the normal set those files of a built-in one. */
export function profileOf(chosen: CrateSettings): Profile {
  if (chosen.profile === 'own') return chosen.ownProfile ?? PROFILES.separate;
  const { name, files } = PROFILES[chosen.profile as ProfileName];
  return {
    name,
    files: files.map((file) => {
      if (file.ending === 'height')
        return { ...file, size: chosen.heightSize as ProfileFile['size'], softMm: chosen.heightSoftMm };
      if (file.ending === 'normal') return { ...file, bits: chosen.normalBits };
      return file.occlusion > 0 ? { ...file, occlusion: chosen.colourOcclusion } : file;
    }),
  };
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
    const wanted = filesWithout(profileOf(chosen), missingMaps(input));
    const files: CrateFile[] = [];
    const seams: CrateOutput['seams'] = [];
    const seen = new Set<MapName>();
    for (const file of wanted) {
      // Maps are made when a file asks for them and let go with it.
      const planes = () => {
        const made = new Map<MapName, Raster>();
        const rasterOf = (map: MapName): Raster => {
          const raster = made.get(map) ?? mapRaster(input, map)!;
          made.set(map, raster);
          return raster;
        };
        return packedPlanes(file, rasterOf, frame);
      };
      const { width, height } = fileSides(file, frame);
      const { ending, format, bits, kind } = file;
      files.push({
        ending,
        format,
        bits,
        kind,
        maps: mapsOf(file),
        contents: contentsOf(file),
        channels: file.channels.length,
        width,
        height,
        samples: () => quantise(planes(), bits),
      });
      const now = planes();
      for (const map of mapsOf(file)) {
        const own = now.filter((_, k) => {
          const channel = file.channels[k];
          return 'map' in channel && channel.map === map;
        });
        if (seen.has(map) || own.length === 0) continue;
        seen.add(map);
        const raster = new Raster(width, height, own);
        if (isUniform(raster)) continue;
        const { seamX, seamY } = seamFigures(raster);
        seams.push({ map, seamX, seamY });
        await context.breathe(files.length / wanted.length);
      }
    }
    return { files, seams };
  },
  verdict(output, _input, chosen, _decided, frame) {
    const isEmpty = chosen.profile === 'own' && chosen.ownProfile === null;
    const none = isEmpty ? 'No own profile is given: the files of “Separate maps” go out.' : '';
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
        state: isEmpty ? 'look' : 'fine',
        brief: `${count} files`,
        sentence: `${count} files of ${frame.wantedSize} px, each of one value: there is nothing that could show a seam.`,
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
