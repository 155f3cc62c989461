import type { Shape } from './shapes.ts';

/** Degrees that the view shows from its lower edge to its upper one. */
export const FIELD_OF_VIEW = 42;
const TAN = Math.tan((FIELD_OF_VIEW * Math.PI) / 360);

type Point = [number, number, number];

/**
 * From where a shape is seen; half of the width and of the height that must fit in view; and how far below its middle the
 * viewer looks, where what is near reaches further down than what is far reaches up.
 */
export interface Stand {
  half: number;
  from: Point;
  below?: number;
}
export const STANCES: Record<Exclude<Shape, 'field' | 'scene'>, Stand> = {
  slab: { half: 1.24, from: [0.24, 0.1, 0.97] },
  ball: { half: 1.2, from: [0, 0.2, 0.98] },
  block: { half: 1.2, from: [0, 0.36, 0.93], below: 0.14 },
  post: { half: 1.25, from: [0, 0.2, 0.98], below: 0.04 },
  nook: { half: 1.36, from: [0, 0.36, 0.93], below: 0.26 },
  own: { half: 1.2, from: [0.3, 0.3, 0.9] },
};

/** Where the viewer stands, and the point looked at, so that a shape fills a view of this width beside its height. */
export function standing({ half, from, below = 0 }: Stand, aspect: number): { eye: Point; at: Point } {
  const away = Math.max(1, 1 / aspect) * (half / TAN);
  return { eye: from.map((value) => value * away) as Point, at: [0, -below, 0] };
}
