import { wrapped } from '../../../raster/wrapped.ts';
import type { CutPath } from '../cut.ts';

/** A step of the cut between two pixels of the tile: one on each side. */
export interface Crossing {
  x: number;
  y: number;
  /** From the pixel to its neighbour on the other side. */
  toX: 0 | 1;
  toY: 0 | 1;
}

/**
 * Where a seam crosses the tile, `across` pixels over the seam and `along` it. A path was found in a strip that begins `before` pixels
 * left of the edge, its rows `beforeAlong` above; without a path the seam is the edge itself. For the seam
 * from top to bottom (`turned`) the strip lies on its side.
 */
export function crossings(
  path: CutPath | null,
  before: number,
  beforeAlong: number,
  across: number,
  along: number,
  turned: boolean,
): Crossing[] {
  const found: Crossing[] = [];
  const add = (column: number, row: number, isAcross: boolean) => {
    // The pixel left of (or above) the step; on its side the two axes change places.
    const x = wrapped(column - before, across);
    const y = wrapped(row - beforeAlong, along);
    found.push(
      turned
        ? { x: y, y: x, toX: isAcross ? 0 : 1, toY: isAcross ? 1 : 0 }
        : { x, y, toX: isAcross ? 1 : 0, toY: isAcross ? 0 : 1 },
    );
  };
  if (!path) {
    for (let row = 0; row < along; row++) add(before - 1, row + beforeAlong, true);
    return found;
  }
  for (let k = 1; k < path.columns.length; k++) {
    const row = Math.min(path.rows[k], path.rows[k - 1]);
    if (path.columns[k] === path.columns[k - 1]) {
      if (row < along) add(path.columns[k] - 1, row, true);
    } else if (path.rows[k] < along && path.rows[k] > 0) {
      add(Math.min(path.columns[k], path.columns[k - 1]), path.rows[k] - 1, false);
    }
  }
  return found;
}
