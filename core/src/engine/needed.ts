import { aspectOf, type Sides, sidesOf } from '../stations/shape.ts';
import type { Corners } from '../stations/square/geometry.ts';
import type { Recipe } from './recipe.ts';

/** Sides of a frame, as shares of the photo's sides they lie along; never so small that nothing is left. */
const sidesOfFrame = (corners: Corners): number[] =>
  corners.map(([x, y], k) => {
    const [nextX, nextY] = corners[(k + 1) % 4];
    return Math.min(1, Math.max(0.02, Math.hypot(nextX - x, nextY - y)));
  });

/**
 * The shorter side, in pixels of the original, that a tile of `size` needs: the host may bring the
 * source down as long as this many are left.
 */
export function neededShortEdge(recipe: Recipe, size: number, source: Sides): number {
  const { corners, share, shape } = recipe.stations.square;
  const { width, height } = sidesOf(shape, size);
  if (corners) {
    return Math.ceil(
      Math.max(...sidesOfFrame(corners).map((side, k) => (k % 2 === 0 ? width : height) / side)),
    );
  }
  const across = share * Math.min(source.width, source.height * aspectOf(shape));
  return Math.ceil((width * Math.min(source.width, source.height)) / across - 1e-9);
}

/** Whole factor by which a source may be reduced for a needed shorter side. */
export function reductionFor(source: { width: number; height: number }, shortEdge: number): number {
  return Math.max(1, Math.floor(Math.min(source.width, source.height) / shortEdge));
}
