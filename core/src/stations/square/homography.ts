import type { Corners, Point } from './points.ts';

/**
 * The projective map that brings the unit square's corners (0,0), (1,0), (1,1), (0,1) to four points
 * (Heckbert 1989, square to quadrilateral). Where the points lie on one line it is not finite.
 */
export function homography([p0, p1, p2, p3]: Corners): (u: number, v: number) => Point {
  const dx1 = p1[0] - p2[0];
  const dx2 = p3[0] - p2[0];
  const dy1 = p1[1] - p2[1];
  const dy2 = p3[1] - p2[1];
  const sx = p0[0] - p1[0] + p2[0] - p3[0];
  const sy = p0[1] - p1[1] + p2[1] - p3[1];
  const whole = dx1 * dy2 - dx2 * dy1;
  const g = (sx * dy2 - dx2 * sy) / whole;
  const h = (dx1 * sy - sx * dy1) / whole;
  const a = p1[0] - p0[0] + g * p1[0];
  const b = p3[0] - p0[0] + h * p3[0];
  const d = p1[1] - p0[1] + g * p1[1];
  const e = p3[1] - p0[1] + h * p3[1];
  return (u, v) => {
    const w = g * u + h * v + 1;
    // Beyond the horizon there is nothing to see.
    if (w <= 1e-6) return [Number.NaN, Number.NaN];
    return [(a * u + b * v + p0[0]) / w, (d * u + e * v + p0[1]) / w];
  };
}
