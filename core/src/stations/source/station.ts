import { choice, data, group, text } from '../../settings/kinds.ts';
import { isOneColour } from '../../statistics/one-colour.ts';
import { GIVEN_MAPS, type GivenRefs, givenSchema } from '../../tile/given.ts';
import type { Remedy } from '../../verdict.ts';
import { runSteps } from '../../work/steps.ts';
import { NOTHING_TO_DECIDE, station } from '../station.ts';
import { type Fitness, fitness, SOFT } from './fitness.ts';
import { linearise, READS_AS } from './linearise.ts';
import { keyOfPhoto, loadPhoto } from './load.ts';
import type { SourceInput, SourceOutput } from './output.ts';

const GROUPS = {
  whereFrom: group({ id: 'where-from', title: 'Where from' }),
  givenMaps: group({ id: 'given-maps', title: 'Supplied maps' }),
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
    names: ['By file type', 'sRGB colour', 'Linear data'],
  }),
  given: data<GivenRefs>({
    ofPicture: true,
    label: 'Supplied maps',
    help: 'Maps supplied with the picture instead of being derived, by the SHA-256 of their files.',
    group: GROUPS.givenMaps,
    default: {},
    schema: givenSchema,
    example: `{"height":{"sha256":"${'0'.repeat(64)}","width":1600,"height":1200}}`,
    words: (value) => GIVEN_MAPS.filter((map) => value[map]).join(', ') || 'none',
  }),
  givenGreen: choice({
    ofPicture: true,
    label: 'Green channel of the supplied normal',
    help: 'The direction in the picture in which the green channel of a supplied normal map points.',
    group: GROUPS.givenMaps,
    default: 'up',
    options: ['up', 'down'],
    names: ['Up (+Y)', 'Down (−Y)'],
  }),
  origin: stated('Origin', 'Where the picture comes from; goes into the manifest.'),
  licence: stated('Licence', 'Under which licence it may be used; goes into the manifest.'),
};

const BURNT = 0.02;
const NOISY = 0.03;
const UNEVEN = 0.08;
const TILTED = 0.4;
/** The smallest size a tile may have, px. */
const LEAST_SIZE = 256;

const percent = (share: number, digits: number) => `${(100 * share).toFixed(digits)} %`;

/** One sentence for each thing that stands out, the rest in one. */
function sentence(f: Fitness, size: number): string {
  return [
    `Shorter side ${f.shortEdge} px, for a ${size} px tile.`,
    `Lighting varies by ${percent(f.unevenness, 1)} across the photo; ${percent(f.burnt, 2)} is clipped white, ${percent(f.black, 2)} clipped black.`,
    f.sharpness < SOFT ? 'It is soft: its finest pixels contain little detail.' : '',
    f.noise > NOISY ? `Noise is ${percent(f.noise, 1)} of the full range.` : '',
    f.tilt !== null && Math.abs(f.tilt) > TILTED
      ? `Its lines run ${f.tilt.toFixed(1).replace('-', '−')}° off level.`
      : '',
    f.seam <= 1 ? 'Its edges already match: it may tile as it is.' : '',
  ]
    .filter(Boolean)
    .join(' ');
}

/** What can be done at once about what the photo offers. */
function remediesOf(f: Fitness, { few, soft }: { few: boolean; soft: boolean }, size: number): Remedy[] {
  const sizeTo = (value: number) => [{ station: 'square', key: 'size', value }];
  return [
    ...(few
      ? [
          {
            advice: 'Choose a smaller size or a larger photo: anything larger is only upsampling.',
            words: `Use ${f.fittingSize} px`,
            settings: sizeTo(f.fittingSize),
          },
        ]
      : []),
    ...(soft && !few && size / 2 >= LEAST_SIZE
      ? [{ advice: 'A smaller tile loses nothing.', words: `Use ${size / 2} px`, settings: sizeTo(size / 2) }]
      : []),
    ...(f.tilt !== null && Math.abs(f.tilt) > TILTED
      ? [
          {
            advice: 'Level it in Square.',
            words: `Rotate by ${f.tilt.toFixed(1).replace('-', '−')}°`,
            settings: [
              {
                station: 'square',
                key: 'turnDegrees',
                value: Math.round(10 * f.tilt) / 10,
                tolerance: TILTED,
              },
            ],
          },
        ]
      : []),
    ...(f.seam <= 1
      ? [
          {
            advice: 'Keep the full frame in Square and set Join to None.',
            words: 'Use the whole photo',
            settings: [
              ...Object.entries({ centreX: 0.5, centreY: 0.5, share: 1, turnDegrees: 0 }).map(
                ([key, value]) => ({
                  station: 'square',
                  key,
                  value,
                }),
              ),
              { station: 'join', key: 'method', value: 'none' },
            ],
          },
        ]
      : []),
  ];
}

/** Source: decoded samples become linear light, and the photo's fitness is reported. */
export const source = station({
  name: 'source',
  line: 'Check the photo before you start.',
  settings,
  reads: [],
  loading: { key: keyOfPhoto, load: loadPhoto },
  pictures: ({ given }) => given,
  cacheKey: ({ reads, given, givenGreen }) => [
    reads,
    givenGreen,
    Object.entries(given)
      .map(([map, ref]) => `${map} ${ref?.sha256} ${ref?.channel ?? 0}`)
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
    // One colour has no detail that could be lost, at any size.
    const isPlain = isOneColour(output.picture);
    const few = !isPlain && f.shortEdge < frame.wantedSize;
    const burnt = !isPlain && f.burnt + f.black > BURNT;
    // Two pixels of the photo and more to one of the tile leave no softness.
    const soft = f.sharpness < SOFT && 2 * frame.wantedSize > f.shortEdge;
    const advice = [
      burnt ? 'Clipped areas cannot be recovered: crop around them in Square.' : '',
      f.unevenness > UNEVEN ? 'Even removes this lighting.' : '',
    ]
      .filter(Boolean)
      .join(' ');
    return {
      state: burnt || few || soft ? ('look' as const) : ('fine' as const),
      brief: few
        ? 'few pixels'
        : burnt
          ? f.burnt > f.black
            ? 'clipped whites'
            : 'clipped blacks'
          : soft
            ? 'soft'
            : isPlain
              ? 'one colour'
              : `${output.originalWidth} × ${output.originalHeight}`,
      sentence: isPlain ? 'The picture is one colour.' : sentence(f, frame.wantedSize),
      advice,
      remedies: isPlain ? [] : remediesOf(f, { few, soft }, frame.wantedSize),
      figures: [
        { id: 'shortEdge', label: 'Shorter side', value: f.shortEdge, unit: 'px', limit: frame.wantedSize },
        { id: 'unevenness', label: 'Uneven light', value: 100 * f.unevenness, unit: '%' },
        { id: 'burnt', label: 'Clipped white', value: 100 * f.burnt, unit: '%', limit: 100 * BURNT },
        { id: 'black', label: 'Clipped black', value: 100 * f.black, unit: '%', limit: 100 * BURNT },
        { id: 'sharpness', label: 'Sharpness', value: f.sharpness, unit: '' },
        { id: 'noise', label: 'Noise', value: 100 * f.noise, unit: '%', limit: 100 * NOISY },
        ...(f.tilt === null ? [] : [{ id: 'tilt', label: 'Lines off level', value: f.tilt, unit: '°' }]),
        { id: 'seam', label: 'Seam, laid as it is', value: f.seam, unit: '', limit: 1 },
      ],
    };
  },
});
