import type { Frame } from '../../tile/frame.ts';

/** σ in pixels of a blur that removes what is finer than so many mm: a blob that large answers to it most (Lindeberg 1998). */
export const sigmaOf = (
  millimetres: number,
  { edgeMetres, size }: Pick<Frame, 'edgeMetres' | 'size'>,
): number => (millimetres / 1000 / edgeMetres / (2 * Math.SQRT2)) * size;
