import { KERNELS } from '../kernels/kernels.ts';
import type { SumRange } from '../kernels/sum-planes/reference.ts';
import { PLANES } from '../memory/pool.ts';
import { inParts, type Steps } from '../work/steps.ts';

/** `base` and each plane by its weight, held to a range, with pauses; into a plane that is given, or one of those summed. */
export function* summing(
  planes: readonly Float32Array[],
  weights: readonly number[],
  range: SumRange = {},
  out = PLANES.take(planes[0].length),
): Steps<Float32Array> {
  yield* inParts(out.length, (from, to) => {
    const parts = planes.map((plane) => plane.subarray(from, to));
    KERNELS.sumPlanes(parts, weights, range, out.subarray(from, to));
  });
  return out;
}
