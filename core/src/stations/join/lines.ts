import { sidesOf } from '../../tile/shape.ts';
import { type CutPath, decodePath } from './cut.ts';
import type { JoinDecision } from './decision.ts';

/** Where one axis was joined, in shares of the tile's edges; may reach past 0 or 1, where the tile wraps. */
export interface CutLine {
  /** Where the strip in which both copies were at hand begins and ends, across the seam. */
  strip: [number, number];
  /** Corners of the cut's path: across the seam, along it. */
  points: [number, number][];
}

/** The strip and the cut of the seam left to right (`x`) and top to bottom (`y`). */
export interface JoinLines {
  x: CutLine | null;
  y: CutLine | null;
}

/** Places of a decided path on the tile: corners where it turns are enough. */
function lineOf(path: CutPath, reach: number, reachAlong: number, across: number, along: number): CutLine {
  const before = Math.round(reach * across);
  const beforeAlong = Math.round(reachAlong * along);
  const points: [number, number][] = [];
  const last = path.columns.length - 1;
  for (let k = 0; k <= last; k++) {
    // Past one edge the rows repeat what the other axis has joined already.
    if (path.rows[k] > along) continue;
    const straight =
      k > 0 &&
      k < last &&
      path.columns[k] - path.columns[k - 1] === path.columns[k + 1] - path.columns[k] &&
      path.rows[k] - path.rows[k - 1] === path.rows[k + 1] - path.rows[k];
    if (straight && path.rows[k] !== along) continue;
    points.push([(path.columns[k] - before) / across, (path.rows[k] - beforeAlong) / along]);
  }
  return { strip: [-before / across, before / across], points };
}

/** Where Join's decision lies on the finished tile. */
export function joinLines({ workingSize, shape, reach, cutX, cutY }: JoinDecision): JoinLines {
  const { width, height } = sidesOf(shape, workingSize);
  return {
    x: cutX === null ? null : lineOf(decodePath(cutX), reach[0], reach[1], width, height),
    // The cut from top to bottom was found on the picture turned on its side, already one tile wide.
    y: cutY === null ? null : lineOf(decodePath(cutY), reach[1], reach[0], height, width),
  };
}
