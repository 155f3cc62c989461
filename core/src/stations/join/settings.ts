import * as v from 'valibot';
import { choice, data, group, number, type Values } from '../../settings/kinds.ts';
import { WIDEST_OVERLAP } from '../square/geometry.ts';
import { type Repair, repairsSchema, repairWords } from './repair/repair.ts';
import { AXES, type Vector } from './vectors.ts';

const GROUPS = {
  vectors: group({ id: 'vectors', title: 'Vectors', collapsed: true }),
  repair: group({ id: 'repair', title: 'Repair' }),
};

export const METHODS = ['propose', 'cut', 'meet', 'mix', 'spread', 'none'] as const;
export const BLENDS = ['multiband', 'narrow', 'gradient'] as const;
export const ORIGINS = ['found', 'lattice', 'offset', 'straight', 'hand'] as const;

export type Method = (typeof METHODS)[number];
export type Origin = (typeof ORIGINS)[number];

/** Vectors drawn by hand: the tile's edges to the right and down, in edges of the crop. */
export interface HandVectors {
  u: Vector;
  v: Vector;
}

const part = v.pipe(v.number(), v.minValue(-1.5), v.maxValue(1.5));
const long = v.pipe(v.number(), v.minValue(0.1), v.maxValue(1.5));
const percent = (value: number) => `${Math.round(1000 * value) / 10} %`;

export const settings = {
  method: choice({
    label: 'Method',
    help: 'propose: all that apply are tried and the best is taken. cut: the best way between two overlapping copies. meet: cut, with ridges bent together. mix: crossfade for fine grain. spread: the difference of the edges spread over the picture. none: it already tiles.',
    default: 'cut',
    options: METHODS,
    names: ['Best found', 'Cut', 'Meet: bend, then cut', 'Mix', 'Spread', 'None: it tiles'],
  }),
  blend: choice({
    label: 'Blend',
    help: 'How both sides blend across the cut: every band in its own width, only the finest bands softly, or steps instead of values (for alike colours).',
    default: 'multiband',
    options: BLENDS,
    names: ['Every band', 'Fine bands only', 'By gradients'],
  }),
  axes: choice({
    label: 'Axes',
    help: 'Which edges meet: both, only left and right (across), only top and bottom (down), or neither.',
    default: 'both',
    options: AXES,
    names: ['Both', 'Only across', 'Only down', 'Neither'],
  }),
  overlap: number({
    label: 'Overlap',
    help: 'Width of the strip the cut may run through, as a fraction of the tile.',
    default: 1 / 6,
    min: 0.05,
    max: WIDEST_OVERLAP,
    step: 0.005,
    unit: '',
  }),
  from: choice({
    label: 'Overlap from',
    help: 'How the overlapping copy is offset: best found (whole periods of a regular pattern, else the cheapest shift), only periods, only a shift, by exactly one crop, or by hand.',
    group: GROUPS.vectors,
    ofPicture: true,
    default: 'found',
    options: ORIGINS,
    names: ['Best found', 'Whole periods', 'Cheapest shift', 'One crop apart', 'By hand'],
  }),
  vectors: data<HandVectors | null>({
    label: 'By hand',
    help: 'The tile’s two edges, drawn on the crop; used where the copy is taken by hand.',
    group: GROUPS.vectors,
    ofPicture: true,
    default: null,
    schema: v.nullable(v.strictObject({ u: v.tuple([long, part]), v: v.tuple([part, long]) })),
    example: '{"u":[1,0],"v":[0,1]}',
    words: (value) =>
      value
        ? `${percent(Math.hypot(...value.u))} across, ${percent(Math.hypot(...value.v))} down`
        : 'not drawn',
  }),
  repairs: data<Repair[]>({
    onSheets: true,
    label: 'Repairs',
    help: 'Strokes and grafts applied to the joined tile, in their order; positions and offsets as fractions of the tile.',
    group: GROUPS.repair,
    ofPicture: true,
    default: [],
    schema: repairsSchema,
    example:
      '[{"kind":"heal","points":[[0.4,0.5],[0.6,0.5]],"radius":0.02,"softness":0.3,"opacity":1,"offset":[0.2,0.1]}]',
    words: (value) => {
      const last = value.at(-1);
      return last ? `${value.length}, the last a ${repairWords(last)}` : 'none';
    },
  }),
};

export type JoinSettings = Values<typeof settings>;
