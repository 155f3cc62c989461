import * as THREE from 'three';
import { mergeGeometries } from 'three/examples/jsm/utils/BufferGeometryUtils.js';
import type { Size } from '../floor/geometry.ts';

export const SHAPES = ['slab', 'ball', 'block', 'post', 'nook', 'own'] as const;
export type Shape = (typeof SHAPES)[number];

export const SHAPE_WORDS: Record<Shape, string> = {
  slab: 'Slab',
  ball: 'Ball',
  block: 'Block',
  post: 'Post',
  nook: 'Nook',
  own: 'Own',
};

const BLOCK = 1.3;
const POST = { radius: 0.5, height: 1.9 };
const NOOK = 1.5;

/** How often the tile's longer edge goes over each shape, across and down. */
const REPEATS: Record<Shape, [number, number]> = {
  slab: [1, 1],
  ball: [4, 2],
  block: [1, 1],
  post: [3, (3 * POST.height) / (2 * Math.PI * POST.radius)],
  nook: [1, 1],
  own: [1, 1],
};

/** How often a tile repeats over a shape, across and down: its pixels stay square. */
export function repeatsOf(shape: Shape, { width, height }: Size, times = 1): [number, number] {
  const [across, down] = REPEATS[shape];
  const longer = Math.max(width, height);
  return [(times * across * longer) / width, (times * down * longer) / height];
}

/** Length of the tile's longer edge in the shape's own units, for the true size of relief. */
export const TILE_EDGE: Record<Shape, number> = {
  slab: 2,
  ball: Math.PI / 2,
  block: BLOCK,
  post: (2 * Math.PI * POST.radius) / 3,
  nook: NOOK,
  own: 1,
};

/** Shapes without sharp edges, which relief may move without tearing them. */
export const IS_WHOLE: Record<Shape, boolean> = {
  slab: true,
  ball: true,
  block: false,
  post: true,
  nook: false,
  own: false,
};

/** From where a shape is seen, and half of what must fit in view. */
export const STANCES: Record<Shape, { half: number; from: [number, number, number] }> = {
  slab: { half: 1.16, from: [0, -0.34, 0.94] },
  ball: { half: 1.16, from: [0, -0.34, 0.94] },
  block: { half: 1.22, from: [0, 0.42, 0.91] },
  post: { half: 1.16, from: [0, 0.2, 0.98] },
  nook: { half: 1.26, from: [0, 0.5, 0.87] },
  own: { half: 1.1, from: [0.3, 0.3, 0.9] },
};

function nook(parts: number): THREE.BufferGeometry {
  const plane = () => new THREE.PlaneGeometry(NOOK, NOOK, parts, parts);
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
  return whole.rotateY(-Math.PI / 4);
}

function bodyOf(shape: Exclude<Shape, 'own'>, parts: (count: number) => number): THREE.BufferGeometry {
  switch (shape) {
    case 'slab':
      return new THREE.PlaneGeometry(2, 2, parts(256), parts(256));
    case 'ball':
      return new THREE.SphereGeometry(1, parts(320), parts(200));
    case 'block':
      return new THREE.BoxGeometry(BLOCK, BLOCK, BLOCK).rotateY(0.62);
    case 'post':
      return new THREE.CylinderGeometry(POST.radius, POST.radius, POST.height, parts(256), parts(160), true);
    case 'nook':
      return nook(1);
  }
}

/** A shape whose v runs from the picture's top downwards; `density` scales how finely it is divided. */
export function shapeOf(shape: Exclude<Shape, 'own'>, density: number): THREE.BufferGeometry {
  const geometry = bodyOf(shape, (count) => Math.round(count * density));
  const uv = geometry.getAttribute('uv');
  for (let i = 0; i < uv.count; i++) uv.setY(i, 1 - uv.getY(i));
  return geometry;
}
