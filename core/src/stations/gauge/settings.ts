import { lineSettings } from '../../chart/line-settings.ts';
import { zoneId } from '../../masks/zone-id.ts';
import { choice, colour, data, flag, group, list, number, type Values } from '../../settings/kinds.ts';
import { type Patch, patchesSchema } from './patches.ts';
import { type Reading, readingsSchema } from './readings.ts';

const GROUPS = {
  percentiles: group({ id: 'percentiles', title: 'Percentiles', collapsed: true }),
  patches: group({ id: 'patches', title: 'Patches' }),
  byEye: group({ id: 'by-eye', title: 'By eye' }),
  recolour: group({ id: 'recolour', title: 'Recolour', collapsed: true }),
  whiteBalance: group({ id: 'white-balance', title: 'White balance', collapsed: true }),
  whatCounts: group({ id: 'what-counts', title: 'What counts', collapsed: true }),
  zones: group({ id: 'zones', title: 'Zones' }),
  readings: group({ id: 'readings', title: 'Readings' }),
};

/** What Gauge does to one zone. */
const zoneTones = list({
  label: 'Zone values',
  help: 'A chart line, exposure and contrast for one zone. Line “none”: the zone is part of the rest, but for its exposure and contrast.',
  group: GROUPS.zones,
  most: 12,
  itemWords: ({ zone }) => zone,
  item: {
    zone: zoneId,
    ...lineSettings('The line of the chart this zone is compared with.', 'As the rest'),
    exposure: number({
      label: 'Exposure',
      help: 'Brighter or darker, in stops, on top of the fit.',
      default: 0,
      min: -4,
      max: 4,
      step: 0.02,
      unit: 'stops',
    }),
    contrast: number({
      label: 'Contrast',
      help: 'Spread about the median.',
      default: 1,
      min: 0.3,
      max: 2,
      step: 0.01,
      unit: '×',
    }),
  },
});

const count = (n: number, one: string, many: string) =>
  n === 0 ? 'none' : n === 1 ? `1 ${one}` : `${n} ${many}`;

export const settings = {
  ...lineSettings('Reference material for this surface.', 'No line chosen'),
  fit: flag({
    label: 'Fit',
    help: 'Moves the median of the measured range into the line’s band and keeps the contrast.',
    default: true,
  }),
  fitBy: choice({
    label: 'Fit by',
    help: 'median: moved into the band, contrast kept. percentiles: the two below come to the ends of the band, contrast follows. patches: exposure and white by patches of known reflectance in the photo, no line needed.',
    default: 'median',
    options: ['median', 'percentiles', 'patches'],
    names: ['The median', 'Two percentiles', 'Patches in the photo'],
  }),
  fitLow: number({
    label: 'Lower',
    help: 'The percentile that comes to the lower end of the band, where it is fitted by two.',
    group: GROUPS.percentiles,
    default: 10,
    min: 0.5,
    max: 49,
    step: 0.5,
    unit: '%',
  }),
  fitHigh: number({
    label: 'Upper',
    help: 'The percentile that comes to the upper end of the band, where it is fitted by two.',
    group: GROUPS.percentiles,
    default: 90,
    min: 51,
    max: 99.5,
    step: 0.5,
    unit: '%',
  }),
  patches: data<Patch[]>({
    ofPicture: true,
    label: 'Patches',
    help: 'Places in the photo whose reflectance is known, such as a grey card: x, y and radius in shares of its sides.',
    group: GROUPS.patches,
    default: [],
    schema: patchesSchema,
    example: '[{"x":0.9,"y":0.92,"radius":0.02,"reflectance":0.18}]',
    words: (value) => count(value.length, 'patch', 'patches'),
  }),
  exposure: number({
    label: 'Exposure',
    help: 'Brighter or darker, in stops, on top of the fit.',
    default: 0,
    min: -4,
    max: 4,
    step: 0.02,
    unit: 'stops',
  }),
  contrast: number({
    label: 'Contrast',
    help: 'Spread about the median.',
    default: 1,
    min: 0.3,
    max: 2,
    step: 0.01,
    unit: '×',
  }),
  colour: number({
    label: 'Colour',
    help: 'Saturation; luminance is preserved.',
    default: 1,
    min: 0,
    max: 2,
    step: 0.01,
    unit: '×',
  }),
  eye: number({
    label: 'By eye',
    help: 'The tile is multiplied by this, as judged beside grey steps on the Sill under white light.',
    group: GROUPS.byEye,
    default: 1,
    min: 0.25,
    max: 4,
    step: 0.01,
    unit: '×',
  }),
  hueDegrees: number({
    label: 'Turn hue',
    help: 'Turns every hue, luminance held.',
    group: GROUPS.recolour,
    default: 0,
    min: -180,
    max: 180,
    step: 1,
    unit: '°',
  }),
  towards: colour({
    label: 'Towards',
    help: 'The colour that all others are pulled towards, luminance held.',
    group: GROUPS.recolour,
    default: '#8a7f70',
  }),
  pull: number({
    label: 'Pull',
    help: 'How much of the way colours go towards it.',
    group: GROUPS.recolour,
    default: 0,
    min: 0,
    max: 1,
    step: 0.01,
    unit: '',
  }),
  white: colour({
    label: 'Should be grey',
    help: 'White balance: pick a colour that should be neutral; plain grey means no change.',
    group: GROUPS.whiteBalance,
    default: '#808080',
  }),
  hold: flag({
    label: 'Soft limits',
    help: 'Softly compresses values no real material has.',
    default: true,
  }),
  countFrom: number({
    label: 'Ignore darkest',
    help: 'The darkest part of the tile that does not count for fit and figures (cracks, holes).',
    group: GROUPS.whatCounts,
    default: 0,
    min: 0,
    max: 95,
    step: 1,
    unit: '%',
  }),
  countTo: number({
    label: 'Ignore above',
    help: 'Where the brightest part that does not count begins (light joints), in percent of the tile.',
    group: GROUPS.whatCounts,
    default: 100,
    min: 5,
    max: 100,
    step: 1,
    unit: '%',
  }),
  zoneTones,
  readings: data<Reading[]>({
    ofPicture: true,
    label: 'Readings',
    help: 'Places whose values are read, at most eight: x, y in shares of the tile, a diameter in mm (0 is a point), a grey to lie beside it.',
    group: GROUPS.readings,
    default: [],
    schema: readingsSchema,
    example: '[{"x":0.4,"y":0.3,"mm":20,"grey":null}]',
    words: (value) => count(value.length, 'reading', 'readings'),
  }),
};

export type GaugeSettings = Values<typeof settings>;
export type ZoneTone = GaugeSettings['zoneTones'][number];
