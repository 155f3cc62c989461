/** What a normal map of 8 bits tells apart. */
const CODES = 255;
/** The least a normal rises, so that no slope goes to infinity. */
const LEAST_UP = 0.02;

const asCode = (value: number): number => (2 * Math.floor((value + 1) * (CODES / 2) + 0.5)) / CODES - 1;

/**
 * Slopes across and down of unit normals as a file of 8 bits holds them, −1…1 by code: x/z and y/z, `green` +1 where green
 * points up.
 */
export function shippedSlopes(planes: readonly Float32Array[], green: 1 | -1): [Float32Array, Float32Array] {
  const [x, y, z] = planes;
  const [p, q] = [new Float32Array(x.length), new Float32Array(x.length)];
  for (let i = 0; i < x.length; i++) {
    const up = Math.max(LEAST_UP, asCode(z[i]));
    p[i] = asCode(x[i]) / up;
    q[i] = (green * asCode(y[i])) / up;
  }
  return [p, q];
}

export const reference = { shippedSlopes };
