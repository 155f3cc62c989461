/** How a cover is combined with one that comes after it: by the product, the larger, or the product with what is not covered. */
export type Combining = 'and' | 'or' | 'without';

/** Two covers 0..1 combined in place of the first; the second is as long or has one value for all. */
export function combineCovers(cover: Float32Array, own: Float32Array, how: Combining): void {
  const step = own.length === 1 && cover.length !== 1 ? 0 : 1;
  const [gain, base] = how === 'without' ? [-1, 1] : [1, 0];
  if (how === 'or') {
    for (let i = 0; i < cover.length; i++) cover[i] = Math.max(cover[i], own[step * i]);
  } else {
    for (let i = 0; i < cover.length; i++) cover[i] *= base + gain * own[step * i];
  }
}

/** Values scaled about one of them that becomes 0.5, held to 0..1, in place. */
export function levelPlane(plane: Float32Array, middle: number, scale: number): void {
  for (let i = 0; i < plane.length; i++) {
    const share = (plane[i] - middle) * scale + 0.5;
    plane[i] = share < 0 ? 0 : Math.min(share, 1);
  }
}

export const reference = { combineCovers, levelPlane };
