import { PLANES } from './pool.ts';

/** A copy of a plane, in one that was given back where there is such. */
export function copyOf(plane: Float32Array): Float32Array {
  const out = PLANES.take(plane.length);
  out.set(plane);
  return out;
}
