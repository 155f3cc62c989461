import type { Shape } from '../shapes.ts';

/**
 * How far from the middle of the view shadows of the sun are cast, in its units; null where a shape is alone and has no part
 * that could stand in another's light.
 */
export const SHADOW_REACH: Record<Shape, number | null> = {
  slab: null,
  ball: null,
  block: null,
  post: null,
  nook: 1.6,
  field: null,
  scene: 1.9,
  own: 1.8,
};
