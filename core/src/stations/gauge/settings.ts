import * as v from 'valibot';
import { lineEntries, lineSettings } from '../../chart/line-settings.ts';
import { choice, colour, data, flag, number, type Values } from '../../settings/settings.ts';
import { withoutStrokes, type Zone, zonesSchema } from '../../zones/zone.ts';
import { type Patch, patchesSchema } from './patches.ts';
import { type Reading, readingsSchema } from './readings.ts';

/** What Gauge does to a zone of its own. */
const zoneToneSchema = v.strictObject({
  zone: v.string(),
  /** Line `none`: the zone is part of the rest, but for its exposure and contrast. */
  ...lineEntries,
  exposure: v.pipe(v.number(), v.minValue(-4), v.maxValue(4)),
  contrast: v.pipe(v.number(), v.minValue(0.3), v.maxValue(2)),
});
export type ZoneTone = v.InferOutput<typeof zoneToneSchema>;

const count = (n: number, one: string, many: string) =>
  n === 0 ? 'none' : n === 1 ? `1 ${one}` : `${n} ${many}`;

export const settings = {
  ...lineSettings('The line of the chart this surface is held against.', 'No line chosen'),
  fit: flag({
    label: 'Fit',
    help: 'Moves the median of what counts into the line’s band and keeps the contrast.',
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
    group: 'Percentiles',
    default: 10,
    min: 0.5,
    max: 49,
    step: 0.5,
    unit: '%',
  }),
  fitHigh: number({
    label: 'Upper',
    help: 'The percentile that comes to the upper end of the band, where it is fitted by two.',
    group: 'Percentiles',
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
    group: 'Patches',
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
    help: 'Strength of colour; luminance is held.',
    default: 1,
    min: 0,
    max: 2,
    step: 0.01,
    unit: '×',
  }),
  eye: number({
    label: 'By eye',
    help: 'The tile is multiplied by this, as judged beside grey steps on the Sill under white light.',
    group: 'By eye',
    default: 1,
    min: 0.25,
    max: 4,
    step: 0.01,
    unit: '×',
  }),
  hueDegrees: number({
    label: 'Turn hue',
    help: 'Turns every hue, luminance held.',
    group: 'Recolour',
    default: 0,
    min: -180,
    max: 180,
    step: 1,
    unit: '°',
  }),
  towards: colour({
    label: 'Towards',
    help: 'The colour that all others are pulled towards, luminance held.',
    group: 'Recolour',
    default: '#8a7f70',
  }),
  pull: number({
    label: 'Pull',
    help: 'How much of the way colours go towards it.',
    group: 'Recolour',
    default: 0,
    min: 0,
    max: 1,
    step: 0.01,
    unit: '',
  }),
  white: colour({
    label: 'Should be grey',
    help: 'White balance: the colour in the picture that is grey in truth; grey itself changes nothing.',
    group: 'White balance',
    default: '#808080',
  }),
  hold: flag({
    label: 'Hold lights and darks',
    help: 'Bends what no real surface has softly back inside the limits.',
    default: true,
  }),
  countFrom: number({
    label: 'Count from',
    help: 'The darkest part of the tile that does not count for fit and figures (cracks, holes).',
    group: 'What counts',
    default: 0,
    min: 0,
    max: 95,
    step: 1,
    unit: '%',
  }),
  countTo: number({
    label: 'Count to',
    help: 'Where the brightest part that does not count begins (light joints), in percent of the tile.',
    group: 'What counts',
    default: 100,
    min: 5,
    max: 100,
    step: 1,
    unit: '%',
  }),
  zones: data<Zone[]>({
    label: 'Zones',
    help: 'Parts of the tile picked by colour, by the values of a map or by a brush, for Gauge and Finish. Strokes stay with their picture.',
    group: 'Zones',
    default: [],
    schema: zonesSchema,
    example:
      '[{"id":"moss","name":"Moss","wetness":0,"parts":[{"by":"colour","how":"and","colour":"#4c5a2a","reach":0.08,"softness":0.3}]}]',
    words: (value) => value.map((zone) => zone.name).join(', ') || 'none',
    forOthers: withoutStrokes,
  }),
  zoneTones: data<ZoneTone[]>({
    label: 'Zone values',
    help: 'A line of the chart, exposure and contrast of its own for a zone.',
    group: 'Zones',
    default: [],
    schema: v.pipe(v.array(zoneToneSchema), v.maxLength(12)),
    example: '[{"zone":"moss","line":"moss","ownLine":null,"exposure":0,"contrast":1}]',
    words: (value) => count(value.length, 'zone', 'zones'),
  }),
  readings: data<Reading[]>({
    ofPicture: true,
    label: 'Readings',
    help: 'Places whose values are read, at most eight: x, y in shares of the tile, a diameter in mm (0 is a point), a grey to lie beside it.',
    group: 'Readings',
    default: [],
    schema: readingsSchema,
    example: '[{"x":0.4,"y":0.3,"mm":20,"grey":null}]',
    words: (value) => count(value.length, 'reading', 'readings'),
  }),
};

export type GaugeSettings = Values<typeof settings>;
