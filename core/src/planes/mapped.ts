import { inParts, type Steps } from '../work/steps.ts';

type Of = (value: number, i: number) => number;

function put(plane: Float32Array, of: Of, out: Float32Array, from: number, to: number): void {
  for (let i = from; i < to; i++) out[i] = of(plane[i], i);
}

/**
 * A plane with each value (and its place) put through `of`. Several times as quick as the array's own `map`, which calls out
 * of the compiled loop for every value.
 */
export function mapped(plane: Float32Array, of: Of): Float32Array {
  const out = new Float32Array(plane.length);
  put(plane, of, out, 0, out.length);
  return out;
}

/** `mapped` with pauses on its way. */
export function* mapping(plane: Float32Array, of: Of): Steps<Float32Array> {
  const out = new Float32Array(plane.length);
  yield* inParts(out.length, (from, to) => put(plane, of, out, from, to));
  return out;
}
