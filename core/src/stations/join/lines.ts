import { type Crop, marginsIn } from '../square/geometry.ts';
import { type CutPath, decodePath } from './cut.ts';
import { type Axes, type AxisPlan, planOverlap } from './overlap.ts';
import type { JoinDecision } from './station.ts';

/** Where one axis was joined, in shares of the tile's edge; may reach past 0 or 1, where the tile wraps. */
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
function lineOf(
  path: CutPath,
  axis: AxisPlan,
  along: AxisPlan,
  overlap: number,
  period: number,
  size: number,
): CutLine {
  const px = (share: number) => Math.round(share * size);
  const edge = px(period);
  const shift = ({ joined, start, origin }: AxisPlan) => (joined ? px(start) - px(origin) : 0);
  const across = (column: number) => (column + shift(axis)) / edge;
  const down = (row: number) => (row + shift(along)) / edge;
  const points: [number, number][] = [];
  const last = path.columns.length - 1;
  for (let k = 0; k <= last; k++) {
    // Past one period the rows repeat what the other axis has joined already.
    if (path.rows[k] > edge) continue;
    const straight =
      k > 0 &&
      k < last &&
      path.columns[k] - path.columns[k - 1] === path.columns[k + 1] - path.columns[k] &&
      path.rows[k] - path.rows[k - 1] === path.rows[k + 1] - path.rows[k];
    if (!straight || path.rows[k] === edge) points.push([across(path.columns[k]), down(path.rows[k])]);
  }
  return { strip: [across(0), across(px(overlap))], points };
}

/** Where Join's decision lies on the finished tile, for a photo of `width` × `height` pixels. */
export function joinLines(
  photo: { width: number; height: number },
  crop: Crop,
  chosen: { overlap: number; axes: Axes },
  { workingSize, cutX, cutY }: JoinDecision,
): JoinLines {
  const plan = planOverlap(marginsIn(photo.width, photo.height, crop), chosen.overlap, chosen.axes);
  const line = (text: string | null, axis: AxisPlan, along: AxisPlan) =>
    text === null ? null : lineOf(decodePath(text), axis, along, plan.overlap, plan.period, workingSize);
  return { x: line(cutX, plan.x, plan.y), y: line(cutY, plan.y, plan.x) };
}
