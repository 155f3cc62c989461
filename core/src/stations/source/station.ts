import * as v from 'valibot';
import { mapped } from '../../planes/mapped.ts';
import { Raster } from '../../raster/raster.ts';
import { choice, data, flag, group, number, text } from '../../settings/kinds.ts';
import { isOneColour } from '../../statistics/one-colour.ts';
import { GIVEN_MAPS, type GivenRefs, givenSchema, type PictureRef } from '../../tile/given.ts';
import type { Remedy } from '../../verdict.ts';
import { runSteps } from '../../work/steps.ts';
import { station } from '../station.ts';
import { type Fitness, fitness, SOFT } from './fitness.ts';
import { isLinear, linearise, READS_AS } from './linearise.ts';
import { keyOfPhoto, loadPhoto } from './load.ts';
import type { SourceInput, SourceOutput } from './output.ts';
import type { Ball } from './shots/ball.ts';
import { decideShots, type LightsChosen } from './shots/decide.ts';
import { type ShotsDecision, shotsDecision } from './shots/decision.ts';
import type { LightDirection } from './shots/light.ts';
import { pictureOfShots } from './shots/picture.ts';
import { ballSchema, directionsSchema, LIGHTS_FROM, shotsSchema } from './shots/settings.ts';
import { shotsVerdict } from './shots/verdict.ts';

const GROUPS = {
  shots: group({
    id: 'shots',
    title: 'Several shots',
    visibleWhen: ({ shots }) => Array.isArray(shots) && shots.length > 0,
  }),
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
  lightsFrom: choice({
    ofPicture: true,
    label: 'Lights',
    help: 'How the direction of the light of each shot is known: found from the shots themselves (four and more), set on discs, or read from a ball in the photo.',
    group: GROUPS.shots,
    default: 'found',
    options: LIGHTS_FROM,
    names: ['Find them', 'Set on discs', 'Read from a ball'],
  }),
  shots: data<PictureRef[]>({
    ofPicture: true,
    label: 'More shots',
    help: 'More shots of the same surface in other light, by the SHA-256 of their files: normals and albedo are measured from all of them.',
    group: GROUPS.shots,
    default: [],
    schema: shotsSchema,
    example: `[{"sha256":"${'0'.repeat(64)}","width":1600,"height":1200}]`,
    words: (value) => (value.length === 0 ? 'none' : `${value.length} more`),
  }),
  lightDirections: data<(LightDirection | null)[]>({
    ofPicture: true,
    label: 'Directions',
    help: 'Where the light of each shot comes from, the photo’s own first: azimuth clockwise from the top of the photo and height above the surface, in degrees.',
    group: GROUPS.shots,
    default: [],
    schema: directionsSchema,
    example: '[{"azimuth":45,"height":40},{"azimuth":135,"height":40},null]',
    words: (value) =>
      value.map((one) => (one ? `${one.azimuth}° / ${one.height}°` : '–')).join(', ') || 'none',
  }),
  ball: data<Ball | null>({
    ofPicture: true,
    label: 'Ball',
    help: 'A ball in the photo that shows where light comes from: its middle from the upper left corner and its radius, as shares of the photo’s longer edge.',
    group: GROUPS.shots,
    default: null,
    schema: ballSchema,
    example: '{"x":0.9,"y":0.1,"radius":0.05}',
    words: (value) => (value ? `${value.x}, ${value.y}` : 'none'),
  }),
  lampDistance: number({
    ofPicture: true,
    label: 'Lamp distance',
    help: 'How far the lamps stood from the middle of the photo, in longer edges of what it shows; 0 for the sun and lamps that are far away.',
    group: GROUPS.shots,
    default: 0,
    min: 0,
    max: 20,
    step: 0.1,
    unit: '×',
  }),
  isInverted: flag({
    ofPicture: true,
    label: 'Swap raised and recessed',
    help: 'Shots in light that had to be found look the same raised and recessed: takes the other of the two.',
    group: GROUPS.shots,
    default: false,
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

/** What of the settings of lights counts, as they are chosen. */
const lightsKey = ({
  lightsFrom,
  lightDirections,
  ball,
  isInverted,
}: Pick<LightsChosen, 'lightsFrom' | 'lightDirections' | 'ball' | 'isInverted'>) => [
  lightsFrom,
  { found: isInverted, typed: lightDirections, ball }[lightsFrom],
];

/** What is left over by so much of the albedo is shown white. */
const WHITE = 0.06;
/** Pixels of the shorter side of shots at which they are aligned. */
const DECIDED_EDGE = 512;

/** Source: decoded samples become linear light, and the photo's fitness is reported. */
export const source = station({
  name: 'source',
  line: 'Check the photo before you start.',
  settings,
  reads: [],
  loading: { key: keyOfPhoto, load: loadPhoto, decidesAt: DECIDED_EDGE },
  pictures: ({ given, shots }) => ({
    ...given,
    ...Object.fromEntries(shots.map((shot, k) => [`shot ${k + 2}`, shot])),
  }),
  cacheKey: ({ reads, given, givenGreen, shots, lampDistance, ...lights }) => [
    reads,
    givenGreen,
    Object.entries(given)
      .map(([map, ref]) => `${map} ${ref?.sha256} ${ref?.channel ?? 0}`)
      .sort(),
    // What was settled is known to what comes after by what it was settled on.
    ...(shots.length > 0 ? [shots.map(({ sha256 }) => sha256), lampDistance, lightsKey(lights)] : []),
  ],
  views: {
    photo: {
      title: 'Photo',
      kind: 'colour',
      before: null,
      raster: ({ source }: { source?: SourceOutput }) => source?.picture ?? null,
    },
    residual: {
      title: 'Left over by the shots',
      kind: 'data',
      before: null,
      raster: ({ source }: { source?: SourceOutput }) =>
        source?.shots
          ? new Raster(source.picture.width, source.picture.height, [
              mapped(source.shots.residual, (value) => Math.min(1, value / WHITE)),
            ])
          : null,
    },
  },
  shows: 'photo',
  weight: 4,
  of: 'photo',
  decision: v.nullable(shotsDecision),
  decidesOn: ({ shots, reads, ...lights }) =>
    shots.length === 0 ? undefined : [shots.map(({ sha256 }) => sha256), reads, lightsKey(lights)],
  decide: ({ pixels, shots }: SourceInput, chosen, _frame, context): Promise<ShotsDecision | null> =>
    decideShots(
      [pixels, ...shots],
      chosen,
      isLinear(pixels.data instanceof Float32Array, chosen.reads),
      context,
    ),
  run: async (input: SourceInput, chosen, decided: ShotsDecision | null, _frame, context) =>
    decided && !decided.refused
      ? pictureOfShots(input, chosen, decided, context)
      : linearise(input, chosen, context.team),
  async verdict(output, _input, chosen, decided, frame, { checkpoint }) {
    if (decided) return shotsVerdict(output, decided, chosen, frame);
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
