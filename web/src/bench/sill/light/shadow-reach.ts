import type { Shape } from '../shapes.ts';

/** How far from the middle of the view shadows of the sun are cast, in its units; null on open ground, which casts none. */
export const SHADOW_REACH: Record<Shape, number | null> = {
  slab: 2.2,
  ball: 2,
  block: 2,
  post: 2,
  nook: 2,
  field: null,
  scene: 3.1,
  own: 2,
};
