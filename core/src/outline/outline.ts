/** Distance of a place to the border of an outline, negative within it; lengths in one unit. */
export type Distance = (x: number, y: number) => number;

/** An outline about its own middle, and how far it reaches from there. */
export interface Outline {
  distance: Distance;
  reach: number;
}

export type Point = readonly [x: number, y: number];

/** A rectangle with rounded corners (Quilez 2013, distance functions). `round` is at most half of the shorter side. */
export function rectangle(width: number, height: number, round = 0): Outline {
  const radius = Math.min(round, width / 2, height / 2);
  const [halfWidth, halfHeight] = [width / 2 - radius, height / 2 - radius];
  return {
    reach: Math.hypot(width, height) / 2,
    distance(x, y) {
      const [dx, dy] = [Math.abs(x) - halfWidth, Math.abs(y) - halfHeight];
      return Math.hypot(Math.max(0, dx), Math.max(0, dy)) + Math.min(0, Math.max(dx, dy)) - radius;
    },
  };
}

const ROUNDS = 4;

/** An ellipse: the nearest point of its border by curvature steps, which is exact to a part in 10⁴ (Simonson 2016). */
export function ellipse(width: number, height: number): Outline {
  const [a, b] = [Math.max(1e-6, width / 2), Math.max(1e-6, height / 2)];
  return {
    reach: Math.max(a, b),
    distance(x, y) {
      const [px, py] = [Math.abs(x), Math.abs(y)];
      let [tx, ty] = [Math.SQRT1_2, Math.SQRT1_2];
      for (let k = 0; k < ROUNDS; k++) {
        const ex = ((a * a - b * b) * tx ** 3) / a;
        const ey = ((b * b - a * a) * ty ** 3) / b;
        const r = Math.hypot(a * tx - ex, b * ty - ey);
        const q = Math.hypot(px - ex, py - ey);
        // At the middle every direction is as near, or the one it began with.
        if (q < 1e-12) break;
        tx = Math.min(1, Math.max(0, ((px - ex) * r) / q / a + ex / a));
        ty = Math.min(1, Math.max(0, ((py - ey) * r) / q / b + ey / b));
        const length = Math.hypot(tx, ty) || 1;
        tx /= length;
        ty /= length;
      }
      const away = Math.hypot(px - a * tx, py - b * ty);
      return (px / a) ** 2 + (py / b) ** 2 < 1 ? -away : away;
    },
  };
}

/** Squared distance of a place to a straight piece. */
function toPiece(x: number, y: number, [ax, ay]: Point, [bx, by]: Point): number {
  const [dx, dy] = [bx - ax, by - ay];
  const square = dx * dx + dy * dy;
  const t = square > 0 ? Math.min(1, Math.max(0, ((x - ax) * dx + (y - ay) * dy) / square)) : 0;
  return (x - ax - t * dx) ** 2 + (y - ay - t * dy) ** 2;
}

const reachOf = (points: readonly Point[]) => Math.max(0, ...points.map(([x, y]) => Math.hypot(x, y)));

/** A closed polygon of at least three corners; inside where a line from it crosses the border an odd number of times. */
export function polygon(points: readonly Point[]): Outline {
  return {
    reach: reachOf(points),
    distance(x, y) {
      let nearest = Number.POSITIVE_INFINITY;
      let isInside = false;
      for (let k = 0, last = points.length - 1; k < points.length; last = k++) {
        const [a, b] = [points[k], points[last]];
        nearest = Math.min(nearest, toPiece(x, y, a, b));
        const crosses = a[1] > y !== b[1] > y;
        if (crosses && x < ((b[0] - a[0]) * (y - a[1])) / (b[1] - a[1]) + a[0]) isInside = !isInside;
      }
      return isInside ? -Math.sqrt(nearest) : Math.sqrt(nearest);
    },
  };
}

/** A line through points, with round ends, so wide. */
export function polyline(points: readonly Point[], width: number): Outline {
  return {
    reach: reachOf(points) + width / 2,
    distance(x, y) {
      let nearest = points.length === 1 ? toPiece(x, y, points[0], points[0]) : Number.POSITIVE_INFINITY;
      for (let k = 1; k < points.length; k++) {
        nearest = Math.min(nearest, toPiece(x, y, points[k - 1], points[k]));
      }
      return Math.sqrt(nearest) - width / 2;
    },
  };
}

/** Corners of a regular polygon, or of a star where `inner` < 1, one of them at the top. */
export function corners(count: number, radius: number, inner = 1): Point[] {
  const isStar = inner < 1;
  const total = isStar ? 2 * count : count;
  return Array.from({ length: total }, (_, k) => {
    const turn = (2 * Math.PI * k) / total;
    const r = isStar && k % 2 === 1 ? inner * radius : radius;
    return [r * Math.sin(turn), -r * Math.cos(turn)] as const;
  });
}

/** Pieces of a curve between two of its points. */
const PIECES = 12;

/** A smooth closed curve through points, as a polygon (centripetal Catmull-Rom would differ little; uniform, Catmull & Rom 1974). */
export function closedCurve(points: readonly Point[]): Point[] {
  const n = points.length;
  if (n < 3) return [...points];
  return points.flatMap((p1, k) => {
    const [p0, p2, p3] = [points[(k + n - 1) % n], points[(k + 1) % n], points[(k + 2) % n]];
    return Array.from({ length: PIECES }, (_, j): Point => {
      const t = j / PIECES;
      const on = (c: 0 | 1) =>
        0.5 *
        (2 * p1[c] +
          (p2[c] - p0[c]) * t +
          (2 * p0[c] - 5 * p1[c] + 4 * p2[c] - p3[c]) * t * t +
          (3 * p1[c] - p0[c] - 3 * p2[c] + p3[c]) * t ** 3);
      return [on(0), on(1)];
    });
  });
}

/** The same outline turned clockwise. */
export function turned({ distance, reach }: Outline, degrees: number): Outline {
  if (degrees === 0) return { distance, reach };
  const angle = (degrees * Math.PI) / 180;
  const [sin, cos] = [Math.sin(angle), Math.cos(angle)];
  return { reach, distance: (x, y) => distance(x * cos + y * sin, y * cos - x * sin) };
}

/** The border of an outline alone, so wide and inside of it. */
export const border = ({ distance, reach }: Outline, width: number): Outline => ({
  reach,
  distance(x, y) {
    const d = distance(x, y);
    return Math.max(d, -d - width);
  },
});
