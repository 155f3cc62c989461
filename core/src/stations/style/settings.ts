import * as v from 'valibot';
import { choice, data, group, number, type Values } from '../../settings/kinds.ts';
import { BAND_COUNT } from '../relief/bands.ts';

const GROUPS = {
  shapes: group({ id: 'shapes', title: 'Shapes and colours' }),
  brush: group({ id: 'brush', title: 'Brush' }),
  paintedLight: group({ id: 'painted-light', title: 'Painted light' }),
  relief: group({ id: 'painted-relief', title: 'Relief' }),
};

const share = (
  label: string,
  help: string,
  given: { group?: (typeof GROUPS)[keyof typeof GROUPS]; default?: number } = {},
) => number({ label, help, default: 0.5, min: 0, max: 1, step: 0.01, unit: '', ...given });

/** Which of six bands of detail are used, fine to broad. */
export type BandChoice = boolean[];
const ALL_BANDS: BandChoice = Array.from({ length: BAND_COUNT }, () => true);

const bands = (label: string, help: string) =>
  data<BandChoice>({
    label,
    help,
    group: GROUPS.relief,
    default: ALL_BANDS,
    schema: v.pipe(
      v.array(v.boolean()),
      v.length(BAND_COUNT, `must have ${BAND_COUNT} values, fine to broad`),
    ),
    example: '[false,true,true,true,true,true]',
    words: (value) => {
      const used = value.flatMap((isUsed, k) => (isUsed ? [k + 1] : []));
      if (used.length === BAND_COUNT) return 'all';
      return used.length === 0 ? 'none' : used.join(', ');
    },
  });

export const settings = {
  amount: share(
    'Amount',
    'How far the photo is repainted: 0 leaves it as it is, to the bit; fine detail is repainted first, broad forms last.',
    { default: 0 },
  ),
  place: choice({
    label: 'Use it',
    help: 'On the whole tile, or only where a coat puts the painted picture through its mask.',
    default: 'tile',
    options: ['tile', 'coats'],
    names: ['On the whole tile', 'Only in coats'],
  }),
  shape: share(
    'Shape',
    'Size of the smallest shape that is kept, from the tile’s own: less keeps more drawing.',
    { group: GROUPS.shapes },
  ),
  edges: share('Edges kept', 'How strictly brush strokes stay within the shapes they paint.', {
    group: GROUPS.shapes,
  }),
  colours: share(
    'Few colours',
    'How far colours are drawn to a small palette of the tile’s own: 17 down to 6.',
    {
      group: GROUPS.shapes,
    },
  ),
  brush: share('Brush size', 'Width of the strokes, from the tile’s own.', { group: GROUPS.brush }),
  marks: share('Marks', 'How plainly the bristles are seen in the strokes.', { group: GROUPS.brush }),
  variety: share('Variety', 'How much strokes differ from each other in hue, richness and direction.', {
    group: GROUPS.brush,
  }),
  seed: number({
    label: 'Seed',
    help: 'Another number places the strokes differently; the same one always places them alike.',
    group: GROUPS.brush,
    default: 1,
    min: 1,
    max: 9999,
    step: 1,
    unit: '',
  }),
  light: share('Light', 'How much light is painted on edges that stand out, and darkness into hollows.', {
    group: GROUPS.paintedLight,
  }),
  lightDegrees: number({
    label: 'Light from',
    help: 'Where the painted light comes from, clockwise from the top of the tile.',
    group: GROUPS.paintedLight,
    default: 315,
    min: 0,
    max: 360,
    step: 1,
    unit: '°',
  }),
  ink: share('Ink', 'Dark lines drawn in the deepest hollows.', { group: GROUPS.paintedLight, default: 0 }),
  depth: share('Depth of marks', 'How far the ridges of the strokes stand out in the height.', {
    group: GROUPS.relief,
  }),
  heightBands: bands(
    'Bands in the height',
    'Which bands of the simplified detail make the height, fine to broad.',
  ),
  occlusionBands: bands(
    'Bands in the occlusion',
    'Which bands of the simplified detail shade the occlusion map, fine to broad.',
  ),
};

export type StyleSettings = Values<typeof settings>;

/** Whether Style paints at all with these settings. */
export const paints = ({ amount }: Pick<StyleSettings, 'amount'>): boolean => amount > 0;
