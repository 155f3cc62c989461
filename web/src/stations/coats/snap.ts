/** Lines that divide the tile, to which handles go: so many along a side. */
export const DIVISIONS = 16;
/** How near a handle must be to go to a line, CSS pixels. */
const NEAR = 6;

/** A share of a side, at the nearest line that divides the tile or at another mark, where one is near enough. */
export function snapped(share: number, sidePixels: number, marks: readonly number[]): number {
  const lines = [Math.round(share * DIVISIONS) / DIVISIONS, ...marks];
  const nearest = lines.reduce((a, b) => (Math.abs(b - share) < Math.abs(a - share) ? b : a));
  return Math.abs(nearest - share) * sidePixels <= NEAR ? nearest : share;
}
