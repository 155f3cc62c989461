/** What a sum of planes begins with, and to what it is held. */
export interface SumRange {
  base?: number;
  low?: number;
  high?: number;
}

/** `base` and each plane by its weight, held to a range; into a new plane, or into one of those that are summed. */
export function sumPlanes(
  planes: readonly Float32Array[],
  weights: readonly number[],
  { base = 0, low = Number.NEGATIVE_INFINITY, high = Number.POSITIVE_INFINITY }: SumRange = {},
  out: Float32Array = new Float32Array(planes[0].length),
): Float32Array {
  for (let i = 0; i < out.length; i++) {
    let sum = base;
    for (let k = 0; k < planes.length; k++) sum += weights[k] * planes[k][i];
    out[i] = Math.min(high, Math.max(low, sum));
  }
  return out;
}

export const reference = { sumPlanes };
