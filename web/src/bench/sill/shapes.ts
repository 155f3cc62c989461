import * as THREE from 'three';
import { mergeGeometries } from 'three/examples/jsm/utils/BufferGeometryUtils.js';

export const SHAPES = ['slab', 'ball', 'block', 'post', 'nook', 'field', 'scene', 'own'] as const;
export type Shape = (typeof SHAPES)[number];
/** Shapes that the program makes as one piece. */
export type SolidShape = Exclude<Shape, 'own' | 'scene'>;

export const SHAPE_WORDS: Record<Shape, string> = {
  slab: 'Slab',
  ball: 'Ball',
  block: 'Block',
  post: 'Post',
  nook: 'Nook',
  field: 'Field',
  scene: 'Terrace',
  own: 'Own',
};

const BLOCK = 1.3;
const POST = { radius: 0.5, height: 1.9 };
const NOOK = 1.5;
const SLAB = 2;
/** A hundred repeats. */
const FIELD = 10;

/** How often the tile's longer edge goes over each shape, across and down. */
const REPEATS: Record<Shape, [number, number]> = {
  slab: [1, 1],
  ball: [4, 2],
  block: [1, 1],
  post: [3, (3 * POST.height) / (2 * Math.PI * POST.radius)],
  nook: [1, 1],
  field: [FIELD, FIELD],
  scene: [1, 1],
  own: [1, 1],
};

/** How often the tile's longer edge goes over a shape, across and down. */
export function repeatsOf(shape: Shape, times: number): [number, number] {
  const [across, down] = REPEATS[shape];
  return [times * across, times * down];
}

/** Round shapes close only with whole counts. */
const isRound = (shape: Shape): boolean => shape === 'ball' || shape === 'post';

/** The nearest count at which a shape's tile still closes upon itself. */
export const closing = (shape: Shape, times: number): number =>
  isRound(shape) ? Math.max(1, Math.round(times * REPEATS[shape][0])) / REPEATS[shape][0] : times;

/** Length of the tile's longer edge in the shape's own units, for the true size of relief. */
export const TILE_EDGE: Record<Exclude<Shape, 'own'>, number> = {
  slab: SLAB,
  ball: Math.PI / 2,
  block: BLOCK,
  post: (2 * Math.PI * POST.radius) / 3,
  nook: NOOK,
  field: SLAB,
  scene: 1,
};

/** How wide each shape is in its own units, as it is said in metres. */
export const WIDTH: Record<SolidShape | 'own', number> = {
  slab: SLAB,
  ball: 2,
  block: BLOCK,
  post: 2 * POST.radius,
  nook: NOOK,
  field: FIELD * SLAB,
  own: 2,
};

/** Shapes without sharp edges, which relief may move without tearing them. */
export const IS_WHOLE: Record<Shape, boolean> = {
  slab: true,
  ball: true,
  block: false,
  post: true,
  nook: false,
  field: false,
  scene: false,
  own: false,
};

/** How far a shape is turned about its upright axis, in radians. */
export const TURNED: Record<SolidShape | 'own', number> = {
  slab: 0,
  ball: 0,
  block: 0.62,
  post: 0,
  nook: -Math.PI / 4,
  field: 0,
  own: 0,
};

/** From where a shape is seen, and half of what must fit in view: its width, and its height where that is less. */
export interface Stand {
  half: number;
  tall?: number;
  from: [number, number, number];
}
export const STANCES: Record<Shape, Stand> = {
  slab: { half: 1.16, from: [0, -0.34, 0.94] },
  ball: { half: 1.16, from: [0, -0.34, 0.94] },
  block: { half: 1.22, from: [0, 0.42, 0.91] },
  post: { half: 1.16, from: [0, 0.2, 0.98] },
  nook: { half: 1.26, from: [0, 0.5, 0.87] },
  field: { half: 4.2, from: [0, -0.97, 0.24] },
  scene: { half: 1.42, tall: 1.3, from: [0.42, 0.34, 0.9] },
  own: { half: 1.1, from: [0.3, 0.3, 0.9] },
};

/** Where the ground lies under a shape, and which way is up, for what is beside it. */
export const GROUNDS: Record<SolidShape | 'own', { at: [number, number, number]; lies: boolean }> = {
  slab: { at: [1.15, 0, 0], lies: true },
  ball: { at: [1.25, -1, 0], lies: false },
  block: { at: [1.15, -BLOCK / 2, 0], lies: false },
  post: { at: [0.8, -POST.height / 2, 0], lies: false },
  nook: { at: [0.35, -NOOK / 2, 0.35], lies: false },
  field: { at: [1, -5, 0], lies: true },
  own: { at: [1.2, -1, 0], lies: false },
};

function nook(): THREE.BufferGeometry {
  const plane = () => new THREE.PlaneGeometry(NOOK, NOOK);
  const half = NOOK / 2;
  const back = plane().translate(0, 0, -half);
  const side = plane()
    .rotateY(Math.PI / 2)
    .translate(-half, 0, 0);
  const floor = plane()
    .rotateX(-Math.PI / 2)
    .translate(0, -half, 0);
  const whole = mergeGeometries([back, side, floor]);
  for (const one of [back, side, floor]) one.dispose();
  return whole;
}

function bodyOf(shape: SolidShape, parts: (count: number) => number): THREE.BufferGeometry {
  switch (shape) {
    case 'slab':
      return new THREE.PlaneGeometry(SLAB, SLAB, parts(256), parts(256));
    case 'ball':
      return new THREE.SphereGeometry(1, parts(320), parts(200));
    case 'block':
      return new THREE.BoxGeometry(BLOCK, BLOCK, BLOCK);
    case 'post':
      return new THREE.CylinderGeometry(POST.radius, POST.radius, POST.height, parts(256), parts(160), true);
    case 'nook':
      return nook();
    case 'field':
      return new THREE.PlaneGeometry(FIELD * SLAB, FIELD * SLAB);
  }
}

/** Turns a geometry's v over: the picture's top is row 0. */
export function downwards(geometry: THREE.BufferGeometry): THREE.BufferGeometry {
  const uv = geometry.getAttribute('uv');
  for (let i = 0; i < uv.count; i++) uv.setY(i, 1 - uv.getY(i));
  return geometry;
}

/** A shape whose v runs from the picture's top downwards; `density` scales how finely it is divided. */
export const shapeOf = (shape: SolidShape, density: number): THREE.BufferGeometry =>
  downwards(bodyOf(shape, (count) => Math.round(count * density)));
