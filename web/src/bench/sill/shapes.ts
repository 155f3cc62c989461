import * as THREE from 'three';

export const SHAPES = ['slab', 'ball'] as const;
export type Shape = (typeof SHAPES)[number];

/** How often the tile repeats over each shape, across and down. */
export const REPEATS: Record<Shape, [number, number]> = { slab: [1, 1], ball: [4, 2] };

/** Length of the tile's edge in the shape's own units, for the true size of relief. */
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
