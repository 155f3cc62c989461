import type { Edges } from '../../raster/edges.ts';
import { atrousSmooth } from '../atrous/reference.ts';

/**
 * One channel of two copies of `width` × `height` mixed band by band: `b` with as much of each B3 band of their difference
 * added as the band's mask says. `masks` are one for each band and one for what remains.
 */
export function blendChannel(
  a: Float32Array,
  b: Float32Array,
  width: number,
  height: number,
  masks: readonly Float32Array[],
  edges: Edges,
): Float32Array {
  const blended = b.slice();
  let apart: Float32Array = new Float32Array(a.length);
  for (let i = 0; i < apart.length; i++) apart[i] = a[i] - b[i];
  const levels = masks.length - 1;
  for (let level = 0; level < levels; level++) {
    const smoother = atrousSmooth(apart, width, height, 2 ** level, edges);
    const mask = masks[level];
    for (let i = 0; i < apart.length; i++) blended[i] += (apart[i] - smoother[i]) * mask[i];
    apart = smoother;
  }
  const rest = masks[levels];
  for (let i = 0; i < apart.length; i++) blended[i] += apart[i] * rest[i];
  return blended;
}

export const reference = { blendChannel };
