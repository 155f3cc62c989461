import type { Recipe } from './recipe.ts';

/** Whether nothing of the source is cropped, evened or joined: it starts from one colour, or is a tile as it came. */
export function isTileAlready({ stations: { square, even, join } }: Recipe): boolean {
  return square.share === 1 && square.turnDegrees === 0 && even.amount === 0 && join.method === 'none';
}
