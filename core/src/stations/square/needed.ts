import type { Sides } from '../../raster/sides.ts';
import { aspectOf, type Shape, sidesOf } from '../../tile/shape.ts';
import type { Crop } from './geometry.ts';
import type { Corners } from './points.ts';

/** Sides of a frame, as shares of the photo's sides they lie along; never so small that nothing is left. */
const sidesOfFrame = (corners: Corners): number[] =>
  corners.map(([x, y], k) => {
    const [nextX, nextY] = corners[(k + 1) % 4];
    return Math.min(1, Math.max(0.02, Math.hypot(nextX - x, nextY - y)));
  });

/**
 * The shorter side, in pixels of the original, that a tile of `size` needs: the photo may be reduced as long as this many
 * are left.
 */
export function neededShortEdge(
  { corners, share, shape }: Pick<Crop, 'corners' | 'share'> & { shape: Shape },
  size: number,
  source: Sides,
): number {
  const { width, height } = sidesOf(shape, size);
  if (corners) {
    return Math.ceil(
      Math.max(...sidesOfFrame(corners).map((side, k) => (k % 2 === 0 ? width : height) / side)),
    );
  }
  const across = share * Math.min(source.width, source.height * aspectOf(shape));
  return Math.ceil((width * Math.min(source.width, source.height)) / across - 1e-9);
}
