/** The logarithm of a light along rows: for each row three terms, of 1, u and u²; u by its start and its step. */
export interface RowLight {
  width: number;
  terms: Float32Array;
  start: number;
  step: number;
}

/** Rows of `from` divided by a light, and by a `shade` whose logarithm is known at every place, into `out`. */
export function divideRows(
  from: Float32Array,
  out: Float32Array,
  { width, terms, start, step }: RowLight,
  shade: Float32Array | null,
): void {
  for (let y = 0; y < out.length / width; y++) {
    const [level, slope, bow] = terms.subarray(3 * y);
    for (let x = 0; x < width; x++) {
      const u = start + step * x;
      const i = y * width + x;
      out[i] = from[i] * Math.exp(-level - u * (slope + bow * u) - (shade ? shade[i] : 0));
    }
  }
}

export const reference = { divideRows };
