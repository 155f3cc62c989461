import * as THREE from 'three';
import { RoundedBoxGeometry } from 'three/examples/jsm/geometries/RoundedBoxGeometry.js';
import type { Matter } from './matter.ts';
import { joined, metric, turnedBy } from './metric.ts';

/** Parts of the terrace that tiles lie on. */
export const SCENE_PARTS = [
  'floor',
  'steps',
  'wall',
  'lowwall',
  'niche',
  'arcade',
  'house',
  'roof',
  'joinery',
  'pot',
  'bench',
  'basin',
] as const;
export type ScenePart = (typeof SCENE_PARTS)[number];

export const PART_WORDS: Record<ScenePart, string> = {
  floor: 'Floor',
  steps: 'Steps',
  wall: 'Wall',
  lowwall: 'Low wall',
  niche: 'Niche',
  arcade: 'Arcade',
  house: 'House front',
  roof: 'Roof',
  joinery: 'Joinery',
  pot: 'Pots',
  bench: 'Bench',
  basin: 'Basin',
};

/** What parts are made of where nothing else is chosen; the open tile is on the floor. */
export const USUAL: Record<ScenePart, Matter | 'this'> = {
  floor: 'this',
  steps: 'limestone',
  wall: 'limewash',
  lowwall: 'limestone',
  niche: 'stucco',
  arcade: 'limestone',
  house: 'stucco',
  roof: 'rooftiles',
  joinery: 'timber',
  pot: 'terracotta',
  bench: 'timber',
  basin: 'limestone',
};

/** Units of the scene for each metre, and where its floor is. */
export const PER_METRE = 0.6;
export const FLOOR_AT = -0.75;

/** Half of the floor's width, and where it ends at the back and towards the viewer, in metres. */
const SIDE = 3.6;
const BACK = -3;
const FRONT = 4.2;
/** How wide edges of stone are broken. */
const BROKEN = 0.014;
/** Where blocks and walls that stand on the floor begin: below it, as light would come in under their broken edges. */
export const FOOT = -BROKEN;

type Point = [number, number, number];

/** A block with broken edges from one corner to the other. */
function block([x0, y0, z0]: Point, [x1, y1, z1]: Point, broken = BROKEN): THREE.BufferGeometry {
  return new RoundedBoxGeometry(x1 - x0, y1 - y0, z1 - z0, 2, broken).translate(
    (x0 + x1) / 2,
    (y0 + y1) / 2,
    (z0 + z1) / 2,
  );
}

/** An opening with a round arch, its sill at `y`, as a path for a wall's outline. */
function archOf(x: number, y: number, wide: number, spring: number): THREE.Path {
  const path = new THREE.Path();
  const r = wide / 2;
  path.moveTo(x - r, y);
  path.lineTo(x - r, spring);
  path.absarc(x, spring, r, Math.PI, 0, true);
  path.lineTo(x + r, y);
  path.closePath();
  return path;
}

/** An upright wall of an outline that faces the viewer. */
function upright(outline: THREE.Shape, z: number, thick: number): THREE.BufferGeometry {
  return new THREE.ExtrudeGeometry(outline, {
    depth: thick - 2 * BROKEN,
    bevelSize: BROKEN,
    bevelThickness: BROKEN,
    bevelOffset: -BROKEN,
    bevelSegments: 2,
    curveSegments: 24,
  }).translate(0, 0, z - thick + BROKEN);
}

/** A wall from the floor up, with arches that stand on the floor. */
function arched(
  [x0, x1, high]: [number, number, number],
  arches: readonly number[],
  { wide, spring }: { wide: number; spring: number },
): THREE.Shape {
  const outline = new THREE.Shape();
  outline.moveTo(x0, FOOT);
  for (const x of arches) {
    outline.lineTo(x - wide / 2, FOOT);
    outline.lineTo(x - wide / 2, spring);
    outline.absarc(x, spring, wide / 2, Math.PI, 0, true);
    outline.lineTo(x + wide / 2, FOOT);
  }
  for (const [x, y] of [
    [x1, FOOT],
    [x1, high],
    [x0, high],
  ])
    outline.lineTo(x, y);
  outline.closePath();
  return outline;
}

/** A wall from the floor up with one opening. */
function pierced([x0, x1, high]: [number, number, number], opening: THREE.Path): THREE.Shape {
  const outline = new THREE.Shape([
    new THREE.Vector2(x0, FOOT),
    new THREE.Vector2(x1, FOOT),
    new THREE.Vector2(x1, high),
    new THREE.Vector2(x0, high),
  ]);
  outline.holes = [opening];
  return outline;
}

/** Where the arcade's openings are, and their measures. */
const ARCHES = [-0.05, 1.45, 2.95];
const ARCH = { wide: 1.02, spring: 1.55 };
const ARCADE = { from: -0.8, to: SIDE, high: 2.5, thick: 0.42 };
const NICHE = { x: -2.2, sill: 0.62, wide: 0.9, spring: 1.5, deep: 0.38 };
const WALL = { high: 2.7, thick: 0.5 };
/** How thick the low walls are. */
const LOW_WALL = 0.32;
const STEPS = { from: 2.1, deep: 0.32, high: 0.165, count: 4, back: -1.3, front: 0.7 };

/** Steps that climb to the right, onto a landing at the wall. */
function steps(): THREE.BufferGeometry[] {
  return Array.from({ length: STEPS.count }, (_, k) => {
    const x = STEPS.from + k * STEPS.deep;
    const end = k === STEPS.count - 1 ? SIDE : x + STEPS.deep + 0.02;
    return block([x, FOOT, STEPS.back], [end, (k + 1) * STEPS.high, STEPS.front]);
  });
}

/** The outline of a pot for a lemon tree, in metres: radius and height from the foot to the inside of the rim. */
const OUTLINE: [number, number][] = [
  [0, 0],
  [0.19, 0],
  [0.23, 0.1],
  [0.29, 0.28],
  [0.32, 0.42],
  [0.32, 0.47],
  [0.36, 0.485],
  [0.37, 0.52],
  [0.36, 0.56],
  [0.33, 0.565],
  [0.31, 0.55],
  [0.29, 0.46],
];

/** Where pots are, and how large beside the first. */
export const POTS: { at: Point; by: number }[] = [
  { at: [-1.15, 0, 0.35], by: 1 },
  { at: [0.7, 0, -2.45], by: 1.1 },
  { at: [-2.95, 0, 1.5], by: 0.8 },
  // In the lemon house, behind its panes.
  { at: [-0.2, 0, -3.86], by: 0.8 },
  { at: [1.6, 0, -3.86], by: 0.8 },
  { at: [2.85, 0, -3.86], by: 0.8 },
];

/** A pot, the tile wrapped about it once in metres. */
function pot({ at, by }: (typeof POTS)[number]): THREE.BufferGeometry {
  const made = new THREE.LatheGeometry(
    OUTLINE.map(([r, y]) => new THREE.Vector2(r, y)),
    64,
  );
  const round = 2 * Math.PI * 0.32 * by;
  let length = 0;
  const along = OUTLINE.map(([r, y], k) => {
    if (k > 0) length += Math.hypot(r - OUTLINE[k - 1][0], y - OUTLINE[k - 1][1]);
    return length * by;
  });
  const uv = made.getAttribute('uv');
  for (let i = 0; i < uv.count; i++) uv.setXY(i, uv.getX(i) * round, length * by - along[i % OUTLINE.length]);
  return made.scale(by, by, by).translate(...at);
}

/** A seat of slats on two feet, along the low wall. */
function bench(): THREE.BufferGeometry[] {
  const x = -2.95;
  const slats = [0, 1, 2, 3].map((k) =>
    block([x + 0.115 * k, 0.42, -1.5], [x + 0.115 * k + 0.095, 0.455, 0.3], 0.008),
  );
  const feet = [-1.3, 0.04].map((z) => block([x + 0.03, FOOT, z], [x + 0.4, 0.42, z + 0.06], 0.008));
  const back = [0.62, 0.78].map((y) => block([x - 0.03, y, -1.5], [x, y + 0.09, 0.3], 0.008));
  const posts = [-1.3, 0.04].map((z) => block([x - 0.02, 0.3, z], [x + 0.02, 0.87, z + 0.06], 0.008));
  return [...slats, ...feet, ...back, ...posts];
}

/** Where the basin is, its height, and how far its water stands below the rim. */
export const BASIN = {
  x: NICHE.x,
  z: BACK + 0.34,
  wide: 1.3,
  deep: 0.66,
  high: 0.56,
  rim: 0.09,
  under: 0.08,
};

function basin(): THREE.BufferGeometry[] {
  const { x, z, wide, deep, high, rim } = BASIN;
  const [x0, x1, z0, z1] = [x - wide / 2, x + wide / 2, z - deep / 2, z + deep / 2];
  return [
    block([x0, FOOT, z0], [x1, 0.12, z1]),
    block([x0, 0.1, z0], [x0 + rim, high, z1]),
    block([x1 - rim, 0.1, z0], [x1, high, z1]),
    block([x0, 0.1, z0], [x1, high, z0 + rim]),
    block([x0, 0.1, z1 - rim], [x1, high, z1]),
  ];
}

/** Frames of the glazed openings, and the door at the landing. */
function joinery(): THREE.BufferGeometry[] {
  const z = BACK - ARCADE.thick + 0.1;
  const bar = (x0: number, y0: number, x1: number, y1: number) =>
    block([x0, y0, z], [x1, y1, z + 0.05], 0.006);
  const frames = ARCHES.flatMap((x) => {
    const [left, right] = [x - ARCH.wide / 2, x + ARCH.wide / 2];
    return [
      bar(left, FOOT, left + 0.07, ARCH.spring + 0.1),
      bar(right - 0.07, FOOT, right, ARCH.spring + 0.1),
      bar(x - 0.03, FOOT, x + 0.03, ARCH.spring + ARCH.wide / 2),
      bar(left, FOOT, right, 0.4),
      bar(left, 0.95, right, 0.99),
      bar(left, ARCH.spring - 0.03, right, ARCH.spring + 0.03),
    ];
  });
  const landing = STEPS.count * STEPS.high;
  const door = block([SIDE - 0.03, landing, -0.85], [SIDE + 0.06, landing + 1.75, 0.05], 0.006);
  return [...frames, door];
}

function piecesOf(part: ScenePart): THREE.BufferGeometry[] {
  switch (part) {
    case 'floor':
      return [block([-SIDE - LOW_WALL, -0.2, BACK - 0.5], [SIDE + 0.5, 0, FRONT], 0.02)];
    case 'steps':
      return steps();
    case 'wall': {
      const landing = STEPS.count * STEPS.high;
      return [
        upright(
          pierced(
            [-SIDE - 0.4, ARCADE.from, WALL.high],
            archOf(NICHE.x, NICHE.sill, NICHE.wide, NICHE.spring),
          ),
          BACK,
          WALL.thick,
        ),
        // At the right, about the door.
        block([SIDE, FOOT, 0.05], [SIDE + 0.5, WALL.high, 1.9]),
        block([SIDE, FOOT, BACK], [SIDE + 0.5, WALL.high, -0.85]),
        block([SIDE, landing + 1.75, -0.86], [SIDE + 0.5, WALL.high, 0.06]),
        block([SIDE, FOOT, -0.86], [SIDE + 0.5, landing, 0.06]),
      ];
    }
    case 'lowwall':
      return [
        block([-SIDE - LOW_WALL, FOOT, BACK], [-SIDE, 0.82, 3]),
        block([-SIDE - 0.38, 0.82, BACK], [-SIDE + 0.06, 0.9, 3.06]),
        // Copings of the high walls.
        block([-SIDE - 0.44, WALL.high, BACK - 0.56], [ARCADE.from, WALL.high + 0.09, BACK + 0.06]),
        block([SIDE - 0.06, WALL.high, BACK], [SIDE + 0.56, WALL.high + 0.09, 1.96]),
        // Where the high wall ends: a pier with a cap, and a low wall on from it.
        block([SIDE - 0.06, FOOT, 1.86], [SIDE + 0.5, WALL.high + 0.1, 2.3]),
        block([SIDE - 0.13, WALL.high + 0.1, 1.79], [SIDE + 0.57, WALL.high + 0.2, 2.37], 0.03),
        new THREE.SphereGeometry(0.17, 40, 24).translate(SIDE + 0.22, WALL.high + 0.36, 2.08),
        block([SIDE, FOOT, 2.28], [SIDE + LOW_WALL, 0.82, FRONT]),
        block([SIDE - 0.06, 0.82, 2.26], [SIDE + 0.38, 0.9, FRONT + 0.04]),
      ];
    case 'niche': {
      const back = BACK - NICHE.deep;
      const r = NICHE.wide / 2;
      return [
        block(
          [NICHE.x - r - 0.1, NICHE.sill - 0.1, back - 0.06],
          [NICHE.x + r + 0.1, NICHE.spring + r + 0.1, back],
        ),
        block([NICHE.x - r - 0.08, NICHE.sill - 0.07, back], [NICHE.x + r + 0.08, NICHE.sill, BACK + 0.07]),
      ];
    }
    case 'arcade':
      return [
        upright(arched([ARCADE.from, ARCADE.to, ARCADE.high], ARCHES, ARCH), BACK, ARCADE.thick),
        // Plinths and springers of the piers.
        ...[-0.68, 0.7, 2.2].flatMap((x) => [
          block([x - 0.2, FOOT, BACK - 0.1], [x + 0.2, 0.22, BACK + 0.05]),
          block([x - 0.19, ARCH.spring - 0.05, BACK - 0.1], [x + 0.19, ARCH.spring + 0.05, BACK + 0.035]),
        ]),
      ];
    case 'house':
      return [
        block([ARCADE.from, ARCADE.high, BACK - ARCADE.thick], [ARCADE.to + 0.4, 3.3, BACK]),
        block([ARCADE.from - 0.08, 3.3, BACK - ARCADE.thick], [ARCADE.to + 0.5, 3.42, BACK + 0.14]),
        block(
          [ARCADE.from - 0.03, ARCADE.high - 0.02, BACK - 0.1],
          [ARCADE.to, ARCADE.high + 0.07, BACK + 0.05],
        ),
      ];
    case 'roof':
      return [
        metric(block([ARCADE.from - 0.25, -0.04, -2.4], [ARCADE.to + 0.7, 0.04, 0]))
          .rotateX(0.42)
          .translate(0, 3.42, BACK + 0.34),
      ];
    case 'joinery':
      return joinery();
    case 'pot':
      return POTS.map(pot);
    case 'bench':
      return bench();
    case 'basin':
      return basin();
  }
}

/** Parts whose pieces carry coordinates of their own. */
const HAS_OWN: readonly ScenePart[] = ['pot', 'roof'];

/** From metres to units of the scene. */
export const inScene = (geometry: THREE.BufferGeometry): THREE.BufferGeometry =>
  geometry.translate(0, FLOOR_AT, 0).scale(PER_METRE, PER_METRE, PER_METRE);

/** A part of the terrace in units of the scene; its coordinates are metres, v downwards, rotated by quarter turns. */
export function partOf(part: ScenePart, turns = 0): THREE.BufferGeometry {
  const whole = joined(piecesOf(part));
  return inScene(turnedBy(HAS_OWN.includes(part) ? whole : metric(whole), turns));
}

/** Where the figure stands on the terrace's floor, in units of the scene. */
export const FIGURE_AT: Point = [1.3 * PER_METRE, FLOOR_AT * PER_METRE, -1.7 * PER_METRE];

/** Behind the panes, and where the lantern hangs, in metres. */
export const PANES = ARCHES.map((x) => ({ x, wide: ARCH.wide, high: ARCH.spring + ARCH.wide / 2 }));
export const PANE_AT = BACK - ARCADE.thick + 0.12;
export const LANTERN_AT: Point = [-0.98, 2.0, BACK + 0.22];
