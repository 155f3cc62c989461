import { KERNELS } from '../../../kernels/kernels.ts';
import { partOf, type SurfaceChannel, strided } from '../../../surface/surface.ts';
import { inParts, type Steps } from '../../../work/steps.ts';

/** How a coat's height meets the height below it, both in mm. */
export const HEIGHT_MODES = ['add', 'raise', 'lower', 'replace', 'level'] as const;
export type HeightMode = (typeof HEIGHT_MODES)[number];

/** Mean of a plane, each value weighed by how far it is covered; 0 where nothing is. */
function coveredMean(below: Float32Array, cover: SurfaceChannel): number {
  let sum = 0;
  let weight = 0;
  const { plane, step } = strided(cover);
  for (let i = 0; i < below.length; i++) {
    const share = plane[step * i];
    sum += share * below[i];
    weight += share;
  }
  return weight > 0 ? sum / weight : 0;
}

/**
 * Blends a height in mm into the height below it, in place: *add* to it, *raise* it at least to it, *lower* it at most to
 * it, *replace* it, or *level*: bring what is covered to its own mean and the height above that.
 */
export function* blendingHeight(
  below: Float32Array,
  above: SurfaceChannel,
  cover: SurfaceChannel,
  mode: HeightMode,
): Steps<void> {
  const base = mode === 'level' ? coveredMean(below, cover) : 0;
  const rule = mode === 'level' ? 'replace' : mode;
  const [a, c] = [above, cover].map(strided);
  yield* inParts(below.length, (from, to) => {
    KERNELS.blendHeight(below.subarray(from, to), partOf(a, from, to), partOf(c, from, to), rule, base);
  });
}
