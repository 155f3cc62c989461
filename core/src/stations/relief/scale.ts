import type { Frame } from '../../tile/frame.ts';

/** σ in pixels of a blur that removes what is finer than so many mm: a blob that large answers to it most (Lindeberg 1998). */
export const sigmaOf = (
  millimetres: number,
  { edgeMetres, size }: Pick<Frame, 'edgeMetres' | 'size'>,
): number => (millimetres / 1000 / edgeMetres / (2 * Math.SQRT2)) * size;

/** σ in pixels about which cavity is read. */
export const cavitySigma = (
  { cavityMm }: { cavityMm: number },
  frame: Pick<Frame, 'edgeMetres' | 'size'>,
): number => Math.min(frame.size / 8, Math.max(0.6, sigmaOf(cavityMm, frame)));
