import * as v from 'valibot';

/** How far outside the tile a stroke may be led, in tile edges. */
const FARTHEST = 128;
/** Most points of one stroke. */
export const MOST_POINTS = 4000;

/** A way with no more points than a stroke may have: evenly, with the first and the last. */
export function thinned<T>(points: readonly T[]): T[] {
  if (points.length <= MOST_POINTS) return [...points];
  const step = (points.length - 1) / (MOST_POINTS - 1);
  return Array.from({ length: MOST_POINTS }, (_, k) => points[Math.round(k * step)]);
}

const place = v.pipe(v.number(), v.finite(), v.minValue(-FARTHEST), v.maxValue(FARTHEST));
const share = v.pipe(v.number(), v.minValue(0), v.maxValue(1));

/**
 * A stroke of a round brush, free of any pixel size: its way in shares of the tile's edges, with the pressure
 * of the pen 0..1 where there is one, and the direction it leans in where it leans, in degrees clockwise from up; its radius as a share of the longer edge; how much of the radius
 * fades out, 0 hard to 1 soft all the way.
 */
export const strokeEntries = {
  points: v.pipe(
    v.array(
      v.union([
        v.tuple([place, place]),
        v.tuple([place, place, share]),
        v.tuple([place, place, share, v.pipe(v.number(), v.minValue(-180), v.maxValue(180))]),
      ]),
    ),
    v.minLength(1),
    v.maxLength(MOST_POINTS),
  ),
  radius: v.pipe(v.number(), v.minValue(0.0005), v.maxValue(0.5)),
  softness: share,
};

const strokeSchema = v.strictObject(strokeEntries);
export type Stroke = v.InferOutput<typeof strokeSchema>;
