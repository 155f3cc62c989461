/** 32 bits drawn for a cell by a seed: the same for the same (integer hash, Wellons 2018, “lowbias32”). */
export function drawn(cell: number, seed: number): number {
  let h = Math.imul(cell + 1, 0x9e3779b1) ^ Math.imul(seed + 1, 0x85ebca77);
  h = Math.imul(h ^ (h >>> 16), 0x7feb352d);
  h = Math.imul(h ^ (h >>> 15), 0x846ca68b);
  return (h ^ (h >>> 16)) >>> 0;
}

/** A value 0 ≤ v < 1 drawn for a cell. */
export const drawnShare = (cell: number, seed: number): number => drawn(cell, seed) / 2 ** 32;
