import * as v from 'valibot';
import { choice, data, group } from '../settings/kinds.ts';
import { CHART, type ChartLine, chartLineSchema, NO_LINE, OWN_LINE } from './chart.ts';

const GROUPS = {
  ownLine: group({ id: 'own-line', title: 'Own line' }),
};

/** Every id that settings may choose a line by. */
export const LINE_IDS = [NO_LINE, OWN_LINE, ...CHART.lines.map((line) => line.id)];

/** The two settings by which a station's line is chosen: one of the built-in chart, or one's own, kept whole. */
export const lineSettings = (help: string, none: string) => ({
  line: choice({
    label: 'Reference',
    help,
    default: NO_LINE,
    options: LINE_IDS,
    names: [none, 'A line from a custom chart', ...CHART.lines.map((line) => line.name)],
  }),
  ownLine: data<ChartLine | null>({
    label: 'Own line',
    help: 'The line of an own chart, kept whole; used where the reference is “own”.',
    group: GROUPS.ownLine,
    default: null,
    schema: v.nullable(chartLineSchema),
    example:
      '{"id":"x","name":"Tuff","group":"stone","kind":"dielectric","reflectance":[0.2,0.3],"f0":0.04,"roughness":[0.7,0.9]}',
    words: (line) => line?.name ?? 'none',
  }),
});
