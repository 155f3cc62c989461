import type { Sides } from '../raster/sides.ts';

/** Shapes of a tile: width to height. */
export const SHAPES = ['1:1', '2:1', '1:2'] as const;
export type Shape = (typeof SHAPES)[number];

/** Width over height. */
export const aspectOf = (shape: Shape): number => (shape === '2:1' ? 2 : shape === '1:2' ? 0.5 : 1);

/** Sides in pixels of a tile whose longer edge has `size` pixels, a power of two. */
export const sidesOf = (shape: Shape, size: number): Sides => ({
  width: shape === '1:2' ? size / 2 : size,
  height: shape === '2:1' ? size / 2 : size,
});
