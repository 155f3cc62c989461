import type { Frame } from '../../tile/frame.ts';

/** Up to this size what is made on the way is kept, so that changing one coat makes only those above it again. */
export const KEPT_SIZE = 1024;

/** What coats depend on of the frame, beside the size. */
export const keyOfFrame = ({ edgeMetres, seed, masks }: Frame) => [
  edgeMetres,
  seed,
  masks.map(({ id, parts }) => [id, parts]),
];
