import { drawnShare } from '../../../lattice/draw.ts';
import { discs } from '../../../noise/discs.ts';
import { visiting } from '../../../outline/fill.ts';
import { choice, number, type Values } from '../../../settings/kinds.ts';
import { sampled, stampOutline, stampTable } from '../../../stamps/stamp-table.ts';
import { STAMP_NAMES, STAMPS } from '../../../stamps/stamps.ts';
import { channelAt, type SurfaceChannel } from '../../../surface/surface.ts';
import type { Frame } from '../../../tile/frame.ts';
import { runSteps, type Steps } from '../../../work/steps.ts';
import { KEPT_SIZE } from '../kept.ts';
import type { Scene } from '../scene.ts';
import { partKind } from './part.ts';
import { fieldOf } from './pattern.ts';

const PICKS = ['cover', 'profile', 'value'] as const;

const settings = {
  stamp: choice({
    label: 'Stamp',
    help: 'What is scattered.',
    default: 'leaf',
    options: STAMP_NAMES,
    names: STAMP_NAMES.map((name) => STAMPS[name].title),
  }),
  pick: choice({
    label: 'Selects',
    help: 'Stamps: what they cover. Profile: their height, the upper one where they overlap. One value each: every stamp a random one.',
    default: 'cover',
    options: PICKS,
    names: ['Stamps', 'Profile', 'One value each'],
  }),
  spacingMm: number({
    label: 'Spacing',
    help: 'The least distance between the middles of two stamps.',
    default: 60,
    min: 0.5,
    max: 5000,
    step: 0.5,
    unit: 'mm',
  }),
  sizeMm: number({
    label: 'Size',
    help: 'Of the largest stamps, across.',
    default: 50,
    min: 0.2,
    max: 5000,
    step: 0.5,
    unit: 'mm',
  }),
  variety: number({
    label: 'Size variety',
    help: 'How much smaller than the largest stamps are, at random.',
    default: 0.4,
    min: 0,
    max: 0.95,
    step: 0.05,
    unit: '',
  }),
  amount: number({
    label: 'Amount',
    help: 'How many of the places that the spacing leaves have a stamp.',
    default: 1,
    min: 0,
    max: 1,
    step: 0.05,
    unit: '',
  }),
  density: choice({
    label: 'Where',
    help: 'All over the tile, or the more the parts before it select a place; stamps are then whole, and are not cut off at the border of those parts.',
    default: 'even',
    options: ['even', 'before'],
    names: ['All over', 'By the parts before'],
  }),
  degrees: number({
    label: 'Rotation',
    help: 'Which way stamps point, clockwise from the top.',
    default: 0,
    min: -180,
    max: 180,
    step: 1,
    unit: '°',
  }),
  turn: number({
    label: 'Rotation variety',
    help: 'How far to either side of it they are turned, at random.',
    default: 180,
    min: 0,
    max: 180,
    step: 1,
    unit: '°',
  }),
  seed: number({
    label: 'Seed',
    help: 'Another number puts them elsewhere.',
    default: 1,
    min: 0,
    max: 9999,
    step: 1,
    unit: '',
  }),
};
type Scatter = Values<typeof settings>;

/** What is drawn for every stamp, by which draw of it. */
const DRAWS = { size: 11, turn: 12, value: 13, isThere: 14, order: 15 } as const;

interface Planes {
  cover: Float32Array;
  profile: Float32Array;
  value: Float32Array;
}

const PLANE_NAMES = ['cover', 'profile', 'value'] as const satisfies readonly (keyof Planes)[];

/** All stamps in their order, over one another: the planes that are named. */
function* scattered<Named extends keyof Planes>(
  named: readonly Named[],
  part: Scatter,
  frame: Frame,
  before: SurfaceChannel,
): Steps<Pick<Planes, Named>> {
  const { width, height, edges } = frame;
  const { widthMm, heightMm } = fieldOf(frame);
  const wraps = { x: edges.x === 'wrap', y: edges.y === 'wrap' };
  const seed = part.seed + 7919 * frame.seed;
  const drawn = (k: number, what: keyof typeof DRAWS) => drawnShare(k, seed + 101 * DRAWS[what]);
  const points = discs({ width: widthMm, height: heightMm, wraps }, part.spacingMm, seed);
  const density = (x: number, y: number): number => {
    if (part.density === 'even') return 1;
    const at = (value: number, mm: number, count: number) =>
      Math.min(count - 1, Math.floor((value / mm) * count));
    return channelAt(before, at(y, heightMm, height) * width + at(x, widthMm, width));
  };
  const canvas = { width, height, edges, unitsAcross: widthMm, unitsDown: heightMm };
  const pixel = Math.sqrt((widthMm / width) * (heightMm / height));
  const { height: heights } = stampTable(part.stamp);
  const planes = Object.fromEntries(named.map((name) => [name, new Float32Array(width * height)]));
  const { cover, profile, value: values }: Partial<Planes> = planes;
  const order = points.map((_point, k) => k).sort((a, b) => drawn(a, 'order') - drawn(b, 'order') || a - b);
  for (const k of order) {
    const [x, y] = points[k];
    if (drawn(k, 'isThere') >= part.amount * density(x, y)) continue;
    const radius = (part.sizeMm / 2) * (1 - part.variety * drawn(k, 'size'));
    const degrees = part.degrees + part.turn * (2 * drawn(k, 'turn') - 1);
    const value = drawn(k, 'value');
    const outline = stampOutline(part.stamp, radius, degrees);
    const angle = (degrees * Math.PI) / 180;
    const [sin, cos] = [Math.sin(angle) / radius, Math.cos(angle) / radius];
    const spot = { x: x / widthMm, y: y / heightMm };
    yield* visiting(canvas, spot, outline, pixel, (i, distance, dx, dy) => {
      const share = Math.min(1, Math.max(0, 0.5 - distance / pixel));
      if (share === 0) return;
      if (cover) cover[i] += share * (1 - cover[i]);
      if (values) values[i] += share * (value - values[i]);
      if (!profile) return;
      const own = sampled(heights, dx * cos + dy * sin, dy * cos - dx * sin);
      profile[i] += share * (own - profile[i]);
    });
  }
  return planes as Pick<Planes, Named>;
}

/** A plane of a scatter: all are made once for whatever asks for one of them, but where three would be too much to hold. */
async function planeOf(
  part: Scatter,
  which: keyof Planes,
  { frame, context }: Scene,
  before: SurfaceChannel,
) {
  const { pick: _pick, ...shape } = part;
  if (frame.size > KEPT_SIZE) {
    const made = await runSteps(scattered([which], part, frame, before), context.checkpoint);
    return made[which];
  }
  const make = () => runSteps(scattered(PLANE_NAMES, part, frame, before), context.checkpoint);
  // What it depends on of other parts has no name.
  const planes =
    part.density === 'even'
      ? await context.part('scatter', [shape, frame.edgeMetres, frame.seed], make)
      : await make();
  return planes[which].slice();
}

/**
 * Stamps at the places of Poisson discs on the torus (Bridson 2007), turned and sized at random, the later ones over the earlier.
 */
export const scatter = partKind({
  title: 'Scatter',
  settings,
  replacesBefore: ({ density }) => density === 'before',
  reads: () => [],
  values: (part, scene, before) => planeOf(part, part.pick, scene, before),
  planes: {
    profile: (part, scene, before) => planeOf(part, 'profile', scene, before),
    value: (part, scene, before) => planeOf(part, 'value', scene, before),
  },
});
