import type { Sides } from '../../raster/sides.ts';
import type { Shape } from '../../tile/shape.ts';
import { gridOf, type MarginShares } from '../square/geometry.ts';

export const AXES = ['both', 'across', 'down', 'neither'] as const;
export type Axes = (typeof AXES)[number];

/** Whether the tile repeats to the right (x) and downwards (y). */
export const joins = (axes: Axes): { x: boolean; y: boolean } => ({
  x: axes === 'both' || axes === 'across',
  y: axes === 'both' || axes === 'down',
});

export type Vector = [number, number];

/**
 * From where the tile is taken: its corner and its two edges, in edges of the crop. The picture one
 * edge further on is the copy that the tile is joined with.
 */
export interface TileVectors {
  corner: Vector;
  u: Vector;
  v: Vector;
}

/** The overlap on the grid on which it is whole pixels at every size, as a share of the tile. */
const overlapOnGrid = (wished: number, grid: number): number =>
  Math.max(2, 2 * Math.round((wished * grid) / 2)) / grid;

/** How far the tile reaches beyond its own edges on each axis: half the strip in which it is joined. */
export const reachOf = (wished: number, axes: Axes, shape: Shape): Vector => {
  const on = joins(axes);
  const grid = gridOf(shape);
  return [on.x ? overlapOnGrid(wished, grid.x) / 2 : 0, on.y ? overlapOnGrid(wished, grid.y) / 2 : 0];
};

const SLACK = 1e-9;

/** The span of what is read along one axis of the crop, from the corner. */
function span(u: number, v: number, [reachU, reachV]: Vector): [number, number] {
  const low = Math.min(-reachU * u, (1 + reachU) * u) + Math.min(-reachV * v, (1 + reachV) * v);
  const high = Math.max(-reachU * u, (1 + reachU) * u) + Math.max(-reachV * v, (1 + reachV) * v);
  return [low, high];
}

/** Nearest place to `wished` at which low…high lies within from…to; null where it is too long. */
function fitted(wished: number, [low, high]: [number, number], from: number, to: number): number | null {
  if (high - low > to - from + SLACK) return null;
  return Math.min(Math.max(wished, from - low), to - high);
}

/**
 * The corner for two edges, so that the tile lies about the crop's middle and all that is read lies in
 * the crop and its margins; null where they are too long for that.
 */
export function placeVectors(u: Vector, v: Vector, reach: Vector, margins: MarginShares): TileVectors | null {
  const x = fitted(0.5 - (u[0] + v[0]) / 2, span(u[0], v[0], reach), -margins.left, 1 + margins.right);
  const y = fitted(0.5 - (u[1] + v[1]) / 2, span(u[1], v[1], reach), -margins.top, 1 + margins.bottom);
  if (x === null || y === null) return null;
  // Without rounding errors the straight tile is the crop itself, which then needs no resampling.
  const clean = (value: number) => (Math.abs(value) < 1e-9 ? 0 : value);
  return { corner: [clean(x), clean(y)], u, v };
}

/** The largest upright square that fits: the crop itself where the margins suffice for the overlap. */
export function straightVectors(reach: Vector, margins: MarginShares): TileVectors {
  const acrossAll = 1 + margins.left + margins.right;
  const downAll = 1 + margins.top + margins.bottom;
  const edge = Math.min(1, acrossAll / (1 + 2 * reach[0]), downAll / (1 + 2 * reach[1]));
  const placed = placeVectors([edge, 0], [0, edge], reach, margins);
  if (!placed) throw new Error('No upright tile fits the crop.');
  return placed;
}

/**
 * Vectors of a tile of any shape as they would lie in a square one: edges along the crop's own are unit vectors, and
 * angles are true. Only for measuring.
 */
export const onSquare = ({ corner, u, v }: TileVectors, { width, height }: Sides): TileVectors => ({
  corner,
  u: [u[0], (u[1] * height) / width],
  v: [(v[0] * width) / height, v[1]],
});

/** By how much the edges of a square tile (`onSquare`) are stretched against each other: 1.05 is five percent. */
export function stretchOf({ u, v }: TileVectors): number {
  const across = Math.hypot(...u);
  const down = Math.hypot(...v);
  return Math.max(across / down, down / across);
}

/** Turn of the tile in the crop, degrees clockwise: the mean of its edges' own. */
export function turnOf({ u, v }: TileVectors): number {
  return (((Math.atan2(u[1], u[0]) + Math.atan2(-v[0], v[1])) / 2) * 180) / Math.PI;
}

/** How far the angle between the edges is from a right one, in degrees. */
export function shearOf({ u, v }: TileVectors): number {
  return (Math.abs(Math.atan2(u[1], u[0]) - Math.atan2(-v[0], v[1])) * 180) / Math.PI;
}
