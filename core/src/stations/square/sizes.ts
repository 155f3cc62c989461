/**
 * Lengths that the longer edge of a finished tile may have, in pixels. In a file of its own, so that a page can list them
 * without loading the stations.
 */
export const SIZES = [256, 512, 1024, 2048, 4096, 8192] as const;

/** Pixels of the photo to one of the tile, below which detail is missing. */
export const ENOUGH = 0.95;

/** The largest size that so many pixels along an edge support; the smallest where they support none. */
export const fittingSize = (pixels: number): number =>
  SIZES.findLast((size) => size * ENOUGH <= pixels) ?? SIZES[0];
