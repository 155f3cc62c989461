import { PATTERN_NAMES, type PatternPlane, patternRows } from '../../../pattern/pattern.ts';
import { drawing } from '../../../raster/rows.ts';
import { choice, number, type Values } from '../../../settings/kinds.ts';
import { statistics } from '../../../statistics/statistics.ts';
import type { Frame } from '../../../tile/frame.ts';
import { runSteps } from '../../../work/steps.ts';
import type { Scene } from '../scene.ts';
import { partKind } from './part.ts';

/** Sides of the tile in mm. */
export const fieldOf = ({ width, height, edgeMetres }: Frame) => {
  const longer = Math.max(width, height);
  return { widthMm: (1000 * edgeMetres * width) / longer, heightMm: (1000 * edgeMetres * height) / longer };
};

const count = (label: string, help: string) =>
  number({ label, help, default: 8, min: 1, max: 256, step: 1, unit: '' });

const PICKS = ['face', 'profile', 'value'] as const satisfies readonly PatternPlane[];

const settings = {
  kind: choice({
    label: 'Pattern',
    help: 'How cells are arranged. Some repeat only in even counts, which are then used.',
    default: 'running',
    options: PATTERN_NAMES,
    names: [
      'Stripes',
      'Checks',
      'Dots',
      'Grid',
      'Planks',
      'Running bond',
      'Header bond',
      'Herringbone',
      'Basket bond',
      'Hexagons',
      'Triangles',
      'Scales',
      'Plain weave',
      'Twill',
      'Basket weave',
      'Stars',
      'Rosettes',
    ],
  }),
  pick: choice({
    label: 'Selects',
    help: 'Faces: all but the joints. Profile: rising from the joints over the bevel. One value each: every cell a random one.',
    default: 'face',
    options: PICKS,
    names: ['Faces', 'Profile', 'One value each'],
  }),
  across: count('Across', 'Cells across the tile.'),
  down: count('Down', 'Cells down the tile.'),
  jointMm: number({
    label: 'Joint',
    help: 'Width of the joints between cells.',
    default: 8,
    min: 0,
    max: 1000,
    step: 0.5,
    unit: 'mm',
  }),
  bevelMm: number({
    label: 'Bevel',
    help: 'From the joint to where the face has its full height.',
    default: 4,
    min: 0,
    max: 1000,
    step: 0.5,
    unit: 'mm',
  }),
  roundMm: number({
    label: 'Corners',
    help: 'How far the corners of rectangles are rounded.',
    default: 0,
    min: 0,
    max: 1000,
    step: 0.5,
    unit: 'mm',
  }),
  shift: number({
    label: 'Row shift',
    help: 'By how much of a cell each row is shifted against the one above; the nearest that repeats with the tile is used.',
    default: 0.5,
    min: 0,
    max: 1,
    step: 0.05,
    unit: '',
  }),
  jitter: number({
    label: 'Jitter',
    help: 'How far rows or cells stray at random.',
    default: 0,
    min: 0,
    max: 1,
    step: 0.05,
    unit: '',
  }),
  seed: number({
    label: 'Seed',
    help: 'Another number draws other random values.',
    default: 1,
    min: 0,
    max: 9999,
    step: 1,
    unit: '',
  }),
};
type Pattern = Values<typeof settings>;

function rowsOf({ pick: _pick, ...shape }: Pattern, plane: PatternPlane, frame: Frame) {
  const seeded = { ...shape, seed: shape.seed + 7919 * frame.seed };
  return patternRows(seeded, fieldOf(frame), frame, plane);
}

const planeOf = (part: Pattern, plane: PatternPlane, { frame, context }: Scene) =>
  runSteps(drawing(rowsOf(part, plane, frame), frame), context.checkpoint);

/** A regular pattern in whole counts across and down the tile. */
export const pattern = partKind({
  title: 'Pattern',
  settings,
  reads: () => [],
  rows: (part, frame) => rowsOf(part, part.pick, frame),
  planes: {
    profile: (part, scene) => planeOf(part, 'profile', scene),
    value: (part, scene) => planeOf(part, 'value', scene),
    async edge(part, scene) {
      const plane = await planeOf(part, 'edgeMm', scene);
      const { max } = statistics(plane);
      return max > 0 ? plane.map((mm) => mm / max) : plane;
    },
  },
});
