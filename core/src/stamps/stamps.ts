import { drawnShare } from '../lattice/draw.ts';
import {
  closedCurve,
  corners,
  ellipse,
  type Outline,
  type Point,
  polygon,
  polyline,
  rectangle,
  turned,
} from '../outline/outline.ts';

/** Height 0..1 at a place of a stamp; `depth` is the distance inwards from its border, in radii. */
type Profile = (x: number, y: number, depth: number) => number;

/** A small shape that is put down many times, in a circle of radius 1 about its middle. Its top points up. */
export interface Stamp {
  title: string;
  outline: Outline;
  profile: Profile;
}

const clamp = (value: number) => Math.min(1, Math.max(0, value));
const flat: Profile = () => 1;
/** Round over its border, as deep as `over` radii, then level. */
const rounded =
  (over: number): Profile =>
  (_x, _y, depth) => {
    const t = clamp(depth / over);
    return Math.sqrt(t * (2 - t));
  };
/** Like a roof, with a crease along its middle. */
const creased: Profile = (x, y, depth) =>
  clamp(0.35 + 1.4 * depth) * (1 - 0.5 * Math.exp(-((x / 0.06) ** 2)) * clamp(1 - Math.abs(y)));
const cup: Profile = (_x, _y, depth) => clamp(1 - 1.3 * depth);

/** Any of several outlines. */
const union = (...all: Outline[]): Outline => ({
  reach: Math.max(...all.map(({ reach }) => reach)),
  distance: (x, y) => Math.min(...all.map(({ distance }) => distance(x, y))),
});
const moved = ({ distance, reach }: Outline, x: number, y: number): Outline => ({
  reach: reach + Math.hypot(x, y),
  distance: (px, py) => distance(px - x, py - y),
});
const without = (a: Outline, b: Outline): Outline => ({
  reach: a.reach,
  distance: (x, y) => Math.max(a.distance(x, y), -b.distance(x, y)),
});

/** An outline by its radius in every direction, clockwise from the top. */
const around = (radius: (turn: number) => number, count = 72): Outline =>
  polygon(
    Array.from({ length: count }, (_, k) => {
      const turn = (2 * Math.PI * k) / count;
      const r = radius(turn);
      return [r * Math.sin(turn), -r * Math.cos(turn)] as const;
    }),
  );

/** Both edges of a leaf: how broad it is along its length, 0 at the tip to 1 at the stalk. */
const blade = (half: (t: number) => number, from = -0.98, to = 0.86): Outline => {
  const steps = 20;
  const side = (sign: number): Point[] =>
    Array.from(
      { length: steps + 1 },
      (_, k) => [sign * half(k / steps), from + ((to - from) * k) / steps] as const,
    );
  return polygon([...side(1), ...side(-1).reverse()]);
};
const stalk = (width: number) =>
  polyline(
    [
      [0, 0.7],
      [0, 0.97],
    ],
    width,
  );

/** An irregular outline: radii drawn about a mean, smooth or with corners. */
const drawnOutline = (seed: number, count: number, low: number, isSmooth: boolean): Outline => {
  const points = corners(count, 1).map(([x, y], k): Point => {
    const r = low + (0.97 - low) * drawnShare(k, seed);
    return [x * r, y * r];
  });
  return polygon(isSmooth ? closedCurve(points) : points);
};

const zigzag = (seed: number, count: number, swing: number): Point[] =>
  Array.from(
    { length: count },
    (_, k) =>
      [
        swing * (drawnShare(k, seed) - 0.5) * Math.sin((Math.PI * (k + 0.5)) / count),
        -0.95 + (1.9 * k) / (count - 1),
      ] as const,
  );

const petals = (count: number, length: number, width: number): Outline =>
  union(
    ...Array.from({ length: count }, (_, k) =>
      turned(moved(ellipse(width, length), 0, -(1 - length / 2 - 0.02)), (360 * k) / count),
    ),
  );

const leafHalf = (broad: number, at: number) => (t: number) => broad * Math.sin(Math.PI * t ** at) ** 0.9;

/** Every stamp by the name it has in recipes. */
export const STAMPS = {
  dot: { title: 'Dot', outline: ellipse(1.96, 1.96), profile: flat },
  ring: { title: 'Ring', outline: without(ellipse(1.96, 1.96), ellipse(1.3, 1.3)), profile: rounded(0.16) },
  square: { title: 'Square', outline: rectangle(1.38, 1.38, 0.06), profile: rounded(0.12) },
  bar: { title: 'Bar', outline: rectangle(0.5, 1.8, 0.1), profile: rounded(0.15) },
  cross: {
    title: 'Cross',
    outline: union(rectangle(0.5, 1.9, 0.05), rectangle(1.9, 0.5, 0.05)),
    profile: rounded(0.14),
  },
  star: { title: 'Star', outline: polygon(corners(5, 0.98, 0.45)), profile: rounded(0.25) },
  rivet: { title: 'Rivet', outline: ellipse(1.9, 1.9), profile: rounded(0.95) },
  nail: {
    title: 'Nail head',
    outline: ellipse(1.8, 1.8),
    profile: (x, y, depth) => rounded(0.2)(x, y, depth) * (0.8 + 0.2 * clamp(1 - 3 * Math.abs(x - y))),
  },
  screw: {
    title: 'Screw head',
    outline: ellipse(1.8, 1.8),
    profile: (x, y, depth) => (Math.abs(x) < 0.13 && Math.abs(y) < 0.7 ? 0.3 : rounded(0.3)(x, y, depth)),
  },
  leaf: { title: 'Leaf', outline: union(blade(leafHalf(0.5, 0.85)), stalk(0.05)), profile: creased },
  'narrow-leaf': {
    title: 'Narrow leaf',
    outline: union(blade(leafHalf(0.2, 0.9)), stalk(0.04)),
    profile: creased,
  },
  'lemon-leaf': {
    title: 'Lemon leaf',
    outline: union(blade(leafHalf(0.4, 1.1), -0.98, 0.7), stalk(0.07)),
    profile: creased,
  },
  'lobed-leaf': {
    title: 'Lobed leaf',
    outline: union(
      around((turn) => 0.62 + 0.34 * Math.cos(5 * turn) * (0.65 + 0.35 * Math.cos(turn))),
      stalk(0.06),
    ),
    profile: creased,
  },
  needle: {
    title: 'Needle',
    outline: blade((t) => 0.07 * Math.sin(Math.PI * t) ** 0.4, -0.98, 0.98),
    profile: rounded(0.06),
  },
  blossom: {
    title: 'Blossom',
    outline: union(petals(5, 0.86, 0.56), ellipse(0.4, 0.4)),
    profile: (x, y, depth) =>
      Math.hypot(x, y) < 0.2 ? 1 : clamp(0.3 + 2.2 * depth) * clamp(0.4 + 0.6 * Math.hypot(x, y)),
  },
  daisy: {
    title: 'Daisy',
    outline: union(petals(12, 0.8, 0.26), ellipse(0.5, 0.5)),
    profile: (x, y, depth) => (Math.hypot(x, y) < 0.25 ? 1 : clamp(0.35 + 3 * depth)),
  },
  petal: {
    title: 'Petal',
    outline: blade((t) => 0.55 * Math.sin(Math.PI * t ** 0.6) ** 0.8, -0.92, 0.95),
    profile: (_x, y, depth) => clamp(0.25 + 0.9 * depth + 0.3 * (-y + 0.2)),
  },
  lemon: {
    title: 'Lemon',
    outline: around((turn) => 0.71 + 0.22 * Math.abs(Math.cos(turn)) ** 6 + 0.05 * Math.abs(Math.cos(turn))),
    profile: rounded(0.7),
  },
  pebble: { title: 'Pebble', outline: drawnOutline(3, 7, 0.72, true), profile: rounded(0.6) },
  stone: { title: 'Stone', outline: drawnOutline(11, 6, 0.68, false), profile: rounded(0.3) },
  shard: { title: 'Shard', outline: drawnOutline(23, 5, 0.4, false), profile: rounded(0.12) },
  chip: { title: 'Chip', outline: drawnOutline(5, 9, 0.55, false), profile: cup },
  crack: { title: 'Crack', outline: polyline(zigzag(8, 9, 0.9), 0.07), profile: rounded(0.035) },
  fork: {
    title: 'Forked crack',
    outline: union(
      polyline(zigzag(14, 9, 0.7), 0.07),
      polyline([zigzag(14, 9, 0.7)[4], [0.5, -0.25], [0.62, -0.66]], 0.05),
      polyline([zigzag(14, 9, 0.7)[5], [-0.45, 0.55], [-0.6, 0.78]], 0.05),
    ),
    profile: rounded(0.035),
  },
  scratch: {
    title: 'Scratch',
    outline: blade((t) => 0.022 * Math.sin(Math.PI * t) ** 0.3, -0.98, 0.98),
    profile: rounded(0.02),
  },
  scratches: {
    title: 'Three scratches',
    outline: union(
      polyline(
        [
          [-0.2, -0.8],
          [-0.12, 0.7],
        ],
        0.03,
      ),
      polyline(
        [
          [0.02, -0.95],
          [0.06, 0.95],
        ],
        0.035,
      ),
      polyline(
        [
          [0.24, -0.5],
          [0.2, 0.85],
        ],
        0.025,
      ),
    ),
    profile: rounded(0.016),
  },
  drip: {
    title: 'Drip',
    outline: union(
      moved(ellipse(0.56, 0.66), 0, 0.62),
      blade((t) => 0.1 + 0.16 * t ** 2, -0.96, 0.62),
    ),
    profile: rounded(0.2),
  },
  splash: {
    title: 'Splash',
    outline: union(
      around((turn) => 0.5 + 0.14 * Math.cos(7 * turn + 0.6) + 0.1 * Math.cos(3 * turn)),
      moved(ellipse(0.16, 0.16), 0.72, -0.5),
      moved(ellipse(0.12, 0.12), -0.62, 0.62),
      moved(ellipse(0.2, 0.2), -0.74, -0.36),
    ),
    profile: rounded(0.25),
  },
  blot: { title: 'Blot', outline: drawnOutline(31, 11, 0.6, true), profile: flat },
  straw: { title: 'Straw', outline: rectangle(0.08, 1.94, 0.03), profile: rounded(0.04) },
  twig: {
    title: 'Twig',
    outline: union(
      polyline(zigzag(41, 6, 0.3), 0.09),
      polyline(
        [
          [0, 0.1],
          [0.3, -0.3],
        ],
        0.06,
      ),
      polyline(
        [
          [-0.02, -0.3],
          [-0.26, -0.62],
        ],
        0.05,
      ),
    ),
    profile: rounded(0.05),
  },
  shell: {
    title: 'Shell',
    outline: around((turn) => 0.8 + 0.1 * Math.cos(turn) + 0.03 * Math.cos(14 * turn)),
    profile: (x, y, depth) => clamp(0.4 + depth) * (0.75 + 0.25 * Math.cos(9 * Math.atan2(x, 1 - y))),
  },
} satisfies Record<string, Stamp>;

export type StampName = keyof typeof STAMPS;
export const STAMP_NAMES = Object.keys(STAMPS) as StampName[];
