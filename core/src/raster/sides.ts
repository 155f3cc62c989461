/** Sides of a picture in pixels. */
export interface Sides {
  width: number;
  height: number;
}

/** Sides of the same shape whose longer one is no longer than `most` pixels. */
export function heldSides({ width, height }: Sides, most: number): Sides {
  const scale = Math.min(1, most / Math.max(width, height));
  return { width: Math.max(1, Math.round(scale * width)), height: Math.max(1, Math.round(scale * height)) };
}
