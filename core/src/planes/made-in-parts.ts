import { PLANES } from '../memory/pool.ts';
import { inParts, type Steps } from '../work/steps.ts';

/** A plane of this many values, each made by itself, in parts with pauses between them. */
export function* madeInParts(
  length: number,
  make: (from: number, to: number) => Float32Array,
): Steps<Float32Array> {
  const out = PLANES.take(length);
  yield* inParts(length, (from, to) => {
    const part = make(from, to);
    out.set(part, from);
    PLANES.give(part);
  });
  return out;
}
