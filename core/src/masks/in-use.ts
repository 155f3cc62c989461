import type { Mask, MaskMap } from './mask.ts';

/** Maps that Relief makes. */
const OF_RELIEF: readonly MaskMap[] = ['height', 'slope', 'cavity', 'occlusion', 'joints'];

const reads = (masks: readonly Mask[], maps: readonly MaskMap[]): boolean =>
  masks.some((mask) => mask.parts.some((part) => part.by === 'range' && maps.includes(part.map)));

/** Whether some mask is selected by a map that Relief makes. */
export const readsRelief = (masks: readonly Mask[]): boolean => reads(masks, OF_RELIEF);

/** Whether some mask is selected by occlusion. */
export const readsOcclusion = (masks: readonly Mask[]): boolean => reads(masks, ['occlusion']);

/** The masks that have an effect: those that values are set for, and wet ones. */
export const masksInUse = (masks: readonly Mask[], values: readonly { zone: string }[]): readonly Mask[] =>
  masks.filter(({ id, wetness }) => wetness > 0 || values.some(({ zone }) => zone === id));

/** What a result depends on of masks: what they select and how wet they are, not their names. */
export const essenceOf = (masks: readonly Mask[]) =>
  masks.map(({ id, parts, wetness }) => [id, parts, wetness]);
