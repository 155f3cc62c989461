/**
 * How points of the first shot come to lie in another: the first eight values of a 3 × 3 matrix by rows whose ninth is 1. Points are counted
 * from the middle of the picture, in shares of its longer edge.
 */
export type Homography = readonly number[];

export const UNMOVED: Homography = [1, 0, 0, 0, 1, 0, 0, 0];

/** Moves all by the same, in shares of the longer edge. */
export const shifted = (x: number, y: number): Homography => [1, 0, x, 0, 1, y, 0, 0];

/** Where a point comes to lie. */
export function movedTo([a, b, c, d, e, f, g, h]: Homography, x: number, y: number): [number, number] {
  const w = g * x + h * y + 1;
  return [(a * x + b * y + c) / w, (d * x + e * y + f) / w];
}

/** The homography that does what `first` does, then what `second` does. */
export function followed(first: Homography, second: Homography): Homography {
  const [a, b] = [
    [...second, 1],
    [...first, 1],
  ];
  const product = Array.from({ length: 9 }, (_, k) => {
    const [i, j] = [Math.floor(k / 3), k % 3];
    return a[3 * i] * b[j] + a[3 * i + 1] * b[3 + j] + a[3 * i + 2] * b[6 + j];
  });
  return product.slice(0, 8).map((value) => value / product[8]);
}

/** The homography that takes back what one does. */
export function inverted(homography: Homography): Homography {
  const [a, b, c, d, e, f, g, h, i] = [...homography, 1];
  const cofactors = [
    e * i - f * h,
    c * h - b * i,
    b * f - c * e,
    f * g - d * i,
    a * i - c * g,
    c * d - a * f,
    d * h - e * g,
    b * g - a * h,
    a * e - b * d,
  ];
  return cofactors.slice(0, 8).map((value) => value / cofactors[8]);
}

/** The farthest that a corner of a picture of these proportions moves, in shares of its longer edge. */
export function farthestMove(homography: Homography, width: number, height: number): number {
  const longer = Math.max(width, height);
  const [x, y] = [width / longer / 2, height / longer / 2];
  const moves = [
    [x, y],
    [-x, y],
    [x, -y],
    [-x, -y],
  ].map(([u, v]) => {
    const [p, q] = movedTo(homography, u, v);
    return Math.hypot(p - u, q - v);
  });
  return Math.max(...moves);
}
