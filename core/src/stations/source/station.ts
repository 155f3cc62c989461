import { choice, data, group, text } from '../../settings/kinds.ts';
import { GIVEN_MAPS, type GivenRefs, givenSchema } from '../../tile/given.ts';
import { runSteps } from '../../work/steps.ts';
import { NOTHING_TO_DECIDE, station } from '../station.ts';
import { type Fitness, fitness } from './fitness.ts';
import { linearise, READS_AS } from './linearise.ts';
import { keyOfPhoto, loadPhoto } from './load.ts';
import type { SourceInput, SourceOutput } from './output.ts';

const GROUPS = {
  whereFrom: group({ id: 'where-from', title: 'Where from' }),
  givenMaps: group({ id: 'given-maps', title: 'Given maps' }),
};

/** Longest origin or licence, in characters. */
const LONGEST = 500;

const stated = (label: string, help: string) =>
  text({ label, help, group: GROUPS.whereFrom, ofPicture: true, default: '', longest: LONGEST });

const settings = {
  reads: choice({
    ofPicture: true,
    label: 'Values are',
    help: 'How the picture’s values are meant: as the file’s kind has it (OpenEXR linear, all others sRGB colour), as sRGB colour, or as linear data.',
    default: 'file',
    options: READS_AS,
    names: ['As the file has it', 'sRGB colour', 'Linear data'],
  }),
  given: data<GivenRefs>({
    ofPicture: true,
    label: 'Given maps',
    help: 'Maps that were given with the picture instead of being derived, by the SHA-256 of their files.',
    group: GROUPS.givenMaps,
    default: {},
    schema: givenSchema,
    example: `{"height":{"sha256":"${'0'.repeat(64)}","width":1600,"height":1200}}`,
    words: (value) => GIVEN_MAPS.filter((map) => value[map]).join(', ') || 'none',
  }),
  givenGreen: choice({
    ofPicture: true,
    label: 'Given green',
    help: 'The direction in the picture to which the green of a given normal map points.',
    group: GROUPS.givenMaps,
    default: 'up',
    options: ['up', 'down'],
    names: ['Up (+Y)', 'Down (−Y)'],
  }),
  origin: stated('Origin', 'Where the picture comes from; goes into the manifest.'),
  licence: stated('Licence', 'Under which licence it may be used; goes into the manifest.'),
};

const BURNT = 0.02;
const SOFT = 0.35;
const NOISY = 0.03;
const UNEVEN = 0.08;
const TILTED = 0.4;

const percent = (share: number, digits: number) => `${(100 * share).toFixed(digits)} %`;

/** One sentence for each thing that stands out, the rest in one. */
function sentence(f: Fitness, size: number): string {
  return [
    `The photo holds ${f.shortEdge} px on its shorter side for a tile of ${size} px.`,
    `Its light varies by ${percent(f.unevenness, 1)} from part to part; ${percent(f.burnt, 2)} of it is burnt out, ${percent(f.black, 2)} black.`,
    f.sharpness < SOFT ? 'It is soft: its finest pixels hold little detail.' : '',
    f.noise > NOISY ? `Its grain of noise is ${percent(f.noise, 1)} of the range.` : '',
    f.tilt !== null && Math.abs(f.tilt) > TILTED
      ? `Its lines run ${f.tilt.toFixed(1).replace('-', '−')}° off level.`
      : '',
    f.seam <= 1 ? 'Laid beside itself it shows no edge: it may tile already.' : '',
  ]
    .filter(Boolean)
    .join(' ');
}

/** Source: decoded samples become linear light, and the photo's fitness is reported. */
export const source = station({
  name: 'source',
  line: 'See what the photo holds before work starts.',
  settings,
  reads: [],
  loading: { key: keyOfPhoto, load: loadPhoto },
  pictures: ({ given }) => given,
  cacheKey: ({ reads, given, givenGreen }) => [
    reads,
    givenGreen,
    Object.entries(given)
      .map(([map, ref]) => `${map} ${ref?.sha256}`)
      .sort(),
  ],
  views: {
    photo: {
      title: 'Photo',
      kind: 'colour',
      before: null,
      raster: ({ source }: { source?: SourceOutput }) => source?.picture ?? null,
    },
  },
  shows: 'photo',
  weight: 4,
  of: 'photo',
  ...NOTHING_TO_DECIDE,
  run: async (input: SourceInput, chosen, _decided, _frame, { team }) => linearise(input, chosen, team),
  async verdict(output, _input, _settings, _decided, frame, { checkpoint }) {
    const f = await runSteps(fitness(output), checkpoint);
    const few = f.shortEdge < frame.wantedSize;
    const burnt = f.burnt + f.black > BURNT;
    const soft = f.sharpness < SOFT;
    const advice = [
      few ? `Choose ${f.fittingSize} px in Square, or a larger photo: more would be invented.` : '',
      burnt ? 'Burnt-out and black places cannot be brought back: crop around them in Square.' : '',
      soft && !few ? 'A smaller tile loses nothing.' : '',
      f.unevenness > UNEVEN ? 'Even will take this light out.' : '',
      f.tilt !== null && Math.abs(f.tilt) > TILTED ? 'Level it in Square.' : '',
      f.seam <= 1 ? 'Take it whole in Square and try none in Join.' : '',
    ]
      .filter(Boolean)
      .join(' ');
    return {
      state: burnt || few || soft ? ('look' as const) : ('fine' as const),
      brief: few
        ? 'few pixels'
        : burnt
          ? f.burnt > f.black
            ? 'burnt places'
            : 'black places'
          : soft
            ? 'soft'
            : `${output.originalWidth} × ${output.originalHeight}`,
      sentence: sentence(f, frame.wantedSize),
      advice,
      figures: [
        { id: 'shortEdge', label: 'Shorter side', value: f.shortEdge, unit: 'px', limit: frame.wantedSize },
        { id: 'unevenness', label: 'Uneven light', value: 100 * f.unevenness, unit: '%' },
        { id: 'burnt', label: 'Burnt out', value: 100 * f.burnt, unit: '%', limit: 100 * BURNT },
        { id: 'black', label: 'Black', value: 100 * f.black, unit: '%', limit: 100 * BURNT },
        { id: 'sharpness', label: 'Sharpness', value: f.sharpness, unit: '' },
        { id: 'noise', label: 'Noise', value: 100 * f.noise, unit: '%', limit: 100 * NOISY },
        ...(f.tilt === null ? [] : [{ id: 'tilt', label: 'Lines off level', value: f.tilt, unit: '°' }]),
        { id: 'seam', label: 'Seam, laid as it is', value: f.seam, unit: '', limit: 1 },
      ],
    };
  },
});
