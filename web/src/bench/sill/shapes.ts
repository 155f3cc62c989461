import * as THREE from 'three';
import type { Size } from '../floor/geometry.ts';

export const SHAPES = ['slab', 'ball'] as const;
export type Shape = (typeof SHAPES)[number];

/** How often the tile's longer edge goes over each shape, across and down. */
const REPEATS: Record<Shape, [number, number]> = { slab: [1, 1], ball: [4, 2] };

/** How often a tile repeats over a shape, across and down: its pixels stay square. */
export function repeatsOf(shape: Shape, { width, height }: Size): [number, number] {
  const [across, down] = REPEATS[shape];
  const longer = Math.max(width, height);
  return [(across * longer) / width, (down * longer) / height];
}

/** Length of the tile's longer edge in the shape's own units, for the true size of relief. */
export const TILE_EDGE: Record<Shape, number> = { slab: 2, ball: Math.PI / 2 };

/** A shape whose v runs from the picture's top downwards; `density` scales how finely it is divided. */
export function shapeOf(shape: Shape, density: number): THREE.BufferGeometry {
  const parts = (count: number) => Math.round(count * density);
  const geometry =
    shape === 'slab'
      ? new THREE.PlaneGeometry(2, 2, parts(256), parts(256))
      : new THREE.SphereGeometry(1, parts(320), parts(200));
  const uv = geometry.getAttribute('uv');
  for (let i = 0; i < uv.count; i++) uv.setY(i, 1 - uv.getY(i));
  return geometry;
}
