/** A table of colours by their place: `steps` + 1 on each axis, four values each, the third axis first in memory. */
export interface ColourTable {
  values: Float32Array;
  steps: number;
  /** Colour of the first place, and places for one unit of each axis. */
  low: number[];
  scale: number[];
}

/**
 * Adds to colours what a table has for them, read between its places: pixels of three planes, into pixels of four values, the
 * fourth as the table has it. What lies beyond the table takes what stands at its edge.
 */
export function drawTo(
  planes: readonly Float32Array[],
  { values, steps, low, scale }: ColourTable,
  into: Float32Array,
): void {
  const strides = [4 * (steps + 1) ** 2, 4 * (steps + 1), 4];
  for (let i = 0; i < planes[0].length; i++) {
    let at = 0;
    const shares = planes.map((plane, c) => {
      const place = Math.min(steps - 1e-3, Math.max(0, (plane[i] - low[c]) * scale[c]));
      const whole = Math.floor(place);
      at += strides[c] * whole;
      return place - whole;
    });
    for (let c = 0; c < 4; c++) {
      let sum = 0;
      for (let corner = 0; corner < 8; corner++) {
        let [weight, from] = [1, at + c];
        for (let axis = 0; axis < 3; axis++) {
          const isFar = (corner >> axis) & 1;
          weight *= isFar ? shares[axis] : 1 - shares[axis];
          from += isFar * strides[axis];
        }
        sum += weight * values[from];
      }
      into[4 * i + c] = sum + (c < 3 ? planes[c][i] : 0);
    }
  }
}

export const reference = { drawTo };
