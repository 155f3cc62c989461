import * as v from 'valibot';

const share = v.pipe(v.number(), v.minValue(0), v.maxValue(1));

/** Points of a tone curve from left to right. */
export const curveSchema = v.pipe(
  v.array(v.tuple([share, share])),
  v.minLength(2, 'must have at least two points'),
  v.maxLength(12, 'must have at most twelve points'),
  v.check(
    (points) => points.every(([x], k) => k === 0 || x > points[k - 1][0]),
    'must run from left to right: it folds back on itself',
  ),
);
export type Curve = v.InferOutput<typeof curveSchema>;

export const STRAIGHT: Curve = [
  [0, 0],
  [1, 1],
];

/** Whether a curve leaves every value as it is. */
export const isStraight = (points: Curve): boolean =>
  points.length === 2 && points.every(([x, y], k) => x === k && y === k);

/** A slope below this is level. */
const LEVEL = 1e-9;

/** Entries of a curve's table. */
const FINE = 1024;

/**
 * A curve through its points as a table of 1025 values over 0..1: cubic between them and never beyond them, so that
 * what rises goes on rising (monotone piecewise cubic, Fritsch & Carlson 1980). Level before the first and after the last.
 */
export function curveTable(points: Curve): Float32Array {
  const count = points.length;
  const slopes: number[] = [];
  for (let k = 0; k + 1 < count; k++) {
    slopes.push((points[k + 1][1] - points[k][1]) / (points[k + 1][0] - points[k][0]));
  }
  const tangents = points.map((_point, k) => {
    if (k === 0) return slopes[0];
    if (k === count - 1) return slopes[count - 2];
    return slopes[k - 1] * slopes[k] <= 0 ? 0 : (slopes[k - 1] + slopes[k]) / 2;
  });
  slopes.forEach((slope, k) => {
    if (Math.abs(slope) < LEVEL) {
      tangents[k] = 0;
      tangents[k + 1] = 0;
      return;
    }
    const [a, b] = [tangents[k] / slope, tangents[k + 1] / slope];
    const length = Math.hypot(a, b);
    if (length > 3) {
      tangents[k] = (3 * a * slope) / length;
      tangents[k + 1] = (3 * b * slope) / length;
    }
  });
  const out = new Float32Array(FINE + 1);
  let piece = 0;
  for (let i = 0; i <= FINE; i++) {
    const x = i / FINE;
    while (piece < count - 2 && x > points[piece + 1][0]) piece++;
    const [x0, y0] = points[piece];
    const [x1, y1] = points[piece + 1];
    const wide = x1 - x0;
    const t = Math.min(1, Math.max(0, (x - x0) / wide));
    const s = 1 - t;
    out[i] =
      y0 * s * s * (1 + 2 * t) +
      y1 * t * t * (3 - 2 * t) +
      wide * (tangents[piece] * t * s * s - tangents[piece + 1] * t * t * s);
  }
  return out;
}

/** A table's value at 0..1, straight between its entries. */
export function curveAt(table: Float32Array, x: number): number {
  const at = Math.min(1, Math.max(0, x)) * FINE;
  const low = Math.min(FINE - 1, Math.floor(at));
  return table[low] + (table[low + 1] - table[low]) * (at - low);
}
