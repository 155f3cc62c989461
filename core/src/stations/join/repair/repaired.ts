import type { Box } from '../../../strokes/cover.ts';

/** What a repair puts in a box of the tile. */
export interface Patch extends Box {
  planes: Float32Array[];
}

/** Colour is blended in square roots of light, near to equal steps for the eye; values of a data map as they are. */
export type RepairedKind = 'colour' | 'data';
