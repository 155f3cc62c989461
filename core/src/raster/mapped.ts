/**
 * A plane with each value (and its place) put through `of`. Several times as quick as the array's own `map`, which calls out
 * of the compiled loop for every value.
 */
export function mapped(plane: Float32Array, of: (value: number, i: number) => number): Float32Array {
  const out = new Float32Array(plane.length);
  for (let i = 0; i < out.length; i++) out[i] = of(plane[i], i);
  return out;
}
