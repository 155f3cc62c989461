import * as v from 'valibot';
import { lineSettings } from '../../chart/line-settings.ts';
import { zoneId } from '../../masks/zone-id.ts';
import { choice, colour, data, flag, group, list, number, type Values } from '../../settings/kinds.ts';
import { type PictureRef, refSchema } from '../../tile/given.ts';
import { type Curve, curveSchema, STRAIGHT } from './curve.ts';

const GROUPS = {
  roughnessFrom: group({ id: 'roughness-from', title: 'Roughness from' }),
  greyMap: group({ id: 'grey-map', title: 'Grey map' }),
  intoTheBand: group({ id: 'into-the-band', title: 'Range', collapsed: true }),
  toneCurve: group({ id: 'tone-curve', title: 'Tone curve' }),
  f0: group({ id: 'f0', title: 'F0', collapsed: true }),
  zones: group({ id: 'zones', title: 'Zones' }),
};

const METALS = ['line', 'no', 'yes'] as const;

const share = v.pipe(v.number(), v.minValue(0), v.maxValue(1));

/** What Finish does to one zone; what is null or `line` is as the zone's line has it, or as the rest. */
const zoneFinish = list({
  label: 'Zone values',
  help: 'A chart line, roughness band, F0 and metallic for one zone.',
  group: GROUPS.zones,
  most: 12,
  itemWords: ({ zone }) => zone,
  item: {
    zone: zoneId,
    ...lineSettings('The line of the chart that gives the zone’s values.', 'As the rest'),
    band: data<[number, number] | null>({
      label: 'Roughness band',
      help: 'Smoothest and roughest of the zone, in place of its line’s.',
      default: null,
      schema: v.nullable(
        v.pipe(
          v.tuple([share, share]),
          v.check(([low, high]) => low <= high, 'needs its lower value first'),
        ),
      ),
      example: '[0.1,0.4]',
      words: (band) => (band ? `${band[0]} to ${band[1]}` : 'as the line'),
    }),
    f0: data<string | null>({
      label: 'F0',
      help: 'F0 of the zone as a colour, sRGB, in place of its line’s.',
      default: null,
      schema: v.nullable(v.pipe(v.string(), v.regex(/^#[0-9a-f]{6}$/i, 'must be a colour such as #383838'))),
      example: '"#383838"',
      words: (colour) => colour ?? 'as the line',
    }),
    metallic: choice({
      label: 'Metallic',
      help: 'Whether the zone is bare metal: as its line has it, or set by hand.',
      default: 'line',
      options: METALS,
      names: ['As the line', 'No', 'Yes'],
    }),
  },
});

const amount = (label: string, help: string, value: number) =>
  number({ label, help, group: GROUPS.roughnessFrom, default: value, min: -1, max: 1, step: 0.05, unit: '' });

export const settings = {
  ...lineSettings(
    'The line of the chart that gives F0, the roughness band, and whether it is a metal.',
    'No line: F0 0.04, roughness 0.5–0.9',
  ),
  metal: choice({
    label: 'Metallic',
    help: 'Whether the tile is bare metal: as the line (or a supplied map) has it, or set by hand.',
    default: 'line',
    options: METALS,
    names: ['As the line', 'No (0)', 'Yes (1)'],
  }),
  tone: amount('Tone', 'How much brightness makes it rougher (right) or smoother (left).', 0.4),
  cavity: amount('Cavity', 'How much hollows are rougher (right) or smoother (left) than edges.', 0.5),
  occlusion: amount('Occlusion', 'How much shaded places are rougher (right) or smoother (left).', 0),
  height: amount('Height', 'How much high places are rougher (right) or smoother (left).', 0),
  slope: amount('Slope', 'How much steep places are rougher (right) or smoother (left).', 0),
  noise: amount('Noise', 'How much noise that meets itself at the edges goes in.', 0),
  noiseMm: number({
    label: 'Noise size',
    help: 'Size of the noise; a whole number of its patches goes into the tile.',
    group: GROUPS.roughnessFrom,
    default: 60,
    min: 1,
    max: 2000,
    step: 1,
    unit: 'mm',
  }),
  grey: number({
    label: 'Amount',
    help: 'How much the grey map makes it rougher where it is bright (right) or smoother (left).',
    group: GROUPS.greyMap,
    default: 0.5,
    min: -1,
    max: 1,
    step: 0.05,
    unit: '',
  }),
  greyMap: data<PictureRef | null>({
    ofPicture: true,
    label: 'The grey map',
    help: 'A grey picture that tiles, by the SHA-256 of its file.',
    group: GROUPS.greyMap,
    default: null,
    schema: v.nullable(refSchema),
    example: `{"sha256":"${'0'.repeat(64)}","width":512,"height":512}`,
    words: (value) => value?.name ?? (value ? 'given' : 'none'),
  }),
  greyCount: number({
    label: 'Repeats',
    help: 'How often the grey map is laid along the tile’s longer edge.',
    group: GROUPS.greyMap,
    default: 1,
    min: 1,
    max: 32,
    step: 1,
    unit: '×',
  }),
  greyQuarters: choice({
    label: 'Rotation',
    help: 'How far the grey map is turned clockwise; only quarter turns still meet themselves.',
    group: GROUPS.greyMap,
    default: 0,
    options: [0, 1, 2, 3],
    names: ['Not', '90°', '180°', '270°'],
  }),
  curve: number({
    label: 'Balance',
    help: 'Left: more of the tile is rough. Right: more of it is smooth.',
    group: GROUPS.intoTheBand,
    default: 0,
    min: -2,
    max: 2,
    step: 0.05,
    unit: '',
  }),
  points: data<Curve>({
    label: 'Tone curve',
    help: 'Points from the smoothest to the roughest: input sum, and the resulting position in the band.',
    group: GROUPS.toneCurve,
    default: STRAIGHT,
    schema: curveSchema,
    example: '[[0,0],[0.5,0.3],[1,1]]',
    words: (value) => (value.length === 2 ? 'straight' : `${value.length} points`),
  }),
  ownBand: flag({
    label: 'Own band',
    help: 'Use the two limits below instead of the line’s roughness band.',
    group: GROUPS.intoTheBand,
    default: false,
  }),
  low: number({
    label: 'Smoothest',
    help: 'Lower limit of roughness, with own band.',
    group: GROUPS.intoTheBand,
    default: 0.5,
    min: 0,
    max: 1,
    step: 0.01,
    unit: '',
  }),
  high: number({
    label: 'Roughest',
    help: 'Upper limit of roughness, with own band.',
    group: GROUPS.intoTheBand,
    default: 0.9,
    min: 0,
    max: 1,
    step: 0.01,
    unit: '',
  }),
  f0From: choice({
    label: 'F0 from',
    help: 'line: as the chart has it. colour: the colour below. tone: from a low to a high by the tile’s brightness, for surfaces part worn, part fresh.',
    group: GROUPS.f0,
    default: 'line',
    options: ['line', 'colour', 'tone'],
    names: ['The line', 'A colour', 'Tone, low to high'],
  }),
  f0Colour: colour({
    label: 'F0 colour',
    help: 'What is mirrored straight on, as a colour; #383838 is 0.04.',
    group: GROUPS.f0,
    default: '#383838',
  }),
  f0Low: number({
    label: 'In the dark',
    help: 'F0 of the darkest parts, where it goes by tone.',
    group: GROUPS.f0,
    default: 0.03,
    min: 0.01,
    max: 1,
    step: 0.005,
    unit: '',
  }),
  f0High: number({
    label: 'In the light',
    help: 'F0 of the brightest parts, where it goes by tone.',
    group: GROUPS.f0,
    default: 0.06,
    min: 0.01,
    max: 1,
    step: 0.005,
    unit: '',
  }),
  zoneFinish,
};

export type FinishSettings = Values<typeof settings>;
export type ZoneFinish = FinishSettings['zoneFinish'][number];
