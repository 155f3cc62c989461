import * as v from 'valibot';
import { type Edges, edgeIndex } from '../../raster/edges.ts';

/** So many at once. */
export const MOST_READINGS = 8;

const place = v.pipe(v.number(), v.finite());

export const readingsSchema = v.pipe(
  v.array(
    v.strictObject({
      /** Shares of the tile; outside 0..1 the tile goes on as it meets itself. */
      x: place,
      y: place,
      /** Diameter of a round patch; 0 reads one point. */
      mm: v.pipe(v.number(), v.minValue(0), v.maxValue(5000)),
      /** Luminance Y of a grey laid beside it, or none. */
      grey: v.nullable(v.pipe(v.number(), v.minValue(0), v.maxValue(1))),
    }),
  ),
  v.maxLength(MOST_READINGS, `at most ${MOST_READINGS} readings`),
);
export type Reading = v.InferOutput<typeof readingsSchema>[number];

/**
 * Mean of planes of one size over a round patch about (x, y), in shares of the tile, `radius` in pixels: of the
 * pixels whose centre lies inside, and at least of the one under its middle.
 */
export function meanAt(
  planes: readonly Float32Array[],
  { width, height }: { width: number; height: number },
  { x, y }: Pick<Reading, 'x' | 'y'>,
  radius: number,
  edges: Edges,
): number[] {
  const [cx, cy] = [x * width, y * height];
  const sums = planes.map((plane) => {
    const i = edgeIndex(Math.floor(cy), height, edges.y) * width + edgeIndex(Math.floor(cx), width, edges.x);
    return plane[i];
  });
  if (radius < 0.75) return sums;
  sums.fill(0);
  let count = 0;
  for (let py = Math.floor(cy - radius); py <= cy + radius; py++) {
    const row = edgeIndex(py, height, edges.y) * width;
    for (let px = Math.floor(cx - radius); px <= cx + radius; px++) {
      if (Math.hypot(px + 0.5 - cx, py + 0.5 - cy) > radius) continue;
      const i = row + edgeIndex(px, width, edges.x);
      count++;
      for (let c = 0; c < planes.length; c++) sums[c] += planes[c][i];
    }
  }
  return count > 0 ? sums.map((sum) => sum / count) : meanAt(planes, { width, height }, { x, y }, 0, edges);
}
