import type { Sides } from '../../raster/sides.ts';
import type { Axis, Seams } from './assemble.ts';
import type { Bend } from './bend.ts';
import { cutMask, decodePath, encodePath, minimumCut, refineCut } from './cut.ts';
import { findBend } from './meet.ts';

/** What was found about the seams, as it is in a recipe. */
export interface FoundSeams {
  cutX: string | null;
  cutY: string | null;
  bendX: Bend | null;
  bendY: Bend | null;
}

/** Seams that are found on the first picture that is joined; `found` is filled on the way. */
export function seeking({ width, height }: Sides, bends: boolean): { seams: Seams; found: FoundSeams } {
  const found: FoundSeams = { cutX: null, cutY: null, bendX: null, bendY: null };
  const seams: Seams = {
    async bend(axis, strip, cyclic) {
      if (!bends) return null;
      const bend = findBend(await strip(), axis === 'x' ? width : height, cyclic);
      found[axis === 'x' ? 'bendX' : 'bendY'] = bend;
      return bend;
    },
    *mask(axis, strip, cyclic) {
      const path = yield* minimumCut(strip, cyclic);
      yield;
      found[axis === 'x' ? 'cutX' : 'cutY'] = encodePath(path);
      return cutMask(strip, path);
    },
  };
  return { seams, found };
}

/** What was followed so far: 1 where the far copy is taken. */
export type Masks = Partial<Record<Axis, Float32Array>>;

/**
 * Seams found at another size: the cut is followed once through the finer pixels of the first picture, which
 * must be the colour it was found on; all other pictures take the same
 * from `masks`, which is filled on the way.
 */
export function following(found: FoundSeams, scale: number, masks: Masks): Seams {
  return {
    bend: async (axis) => (axis === 'x' ? found.bendX : found.bendY),
    *mask(axis, strip, cyclic) {
      const known = masks[axis];
      if (known) return known;
      const text = axis === 'x' ? found.cutX : found.cutY;
      if (text === null) throw new Error('The recipe’s decisions hold no cut for this axis.');
      const path = decodePath(text);
      const own = scale === 1 ? path : yield* refineCut(strip, path, scale, cyclic);
      yield;
      const mask = cutMask(strip, own);
      masks[axis] = mask;
      return mask;
    },
  };
}
