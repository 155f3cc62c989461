import { painting } from '../../../masks/cover.ts';
import type { MaskStroke } from '../../../masks/mask.ts';
import type { Edges } from '../../../raster/edges.ts';
import type { Sides } from '../../../raster/sides.ts';
import type { Steps } from '../../../work/steps.ts';

/** A net with what was painted put in, and what was erased taken out: in the order of the strokes. */
export function* repaired(
  net: Uint8Array,
  strokes: readonly MaskStroke[],
  { width, height }: Sides,
  edges: Edges,
): Steps<{ mask: Uint8Array; isAdded: Uint8Array }> {
  const mask = net.slice();
  const isAdded = new Uint8Array(net.length);
  for (const stroke of strokes) {
    const whole = { ...stroke, erase: false };
    const cover = yield* painting([whole], new Float32Array(net.length), width, height, edges);
    for (let i = 0; i < cover.length; i++) {
      if (cover[i] < 0.5) continue;
      mask[i] = stroke.erase ? 0 : 1;
      isAdded[i] = mask[i];
    }
  }
  return { mask, isAdded };
}
