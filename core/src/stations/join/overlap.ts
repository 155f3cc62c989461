import { GRID, type MarginShares } from '../square/geometry.ts';

export const AXES = ['both', 'across', 'down', 'neither'] as const;
export type Axes = (typeof AXES)[number];

/** Whether the tile repeats to the right (x) and downwards (y). */
export const joins = (axes: Axes): { x: boolean; y: boolean } => ({
  x: axes === 'both' || axes === 'across',
  y: axes === 'both' || axes === 'down',
});

/** Where one axis of the tile is taken from; all in fractions of the crop, on the 1/256 grid. */
export interface AxisPlan {
  joined: boolean;
  /** Crop coordinate at which the strip of the first copy starts (or the tile, when not joined). */
  start: number;
  /** Crop coordinate that becomes the tile's edge. */
  origin: number;
}

/**
 * How the tile is laid out over crop and margins. `period` is the tile vector as a share of the crop's
 * edge: 1 where the photo has margin enough, less where the overlap has to be taken from the crop.
 */
export interface OverlapPlan {
  overlap: number;
  period: number;
  x: AxisPlan;
  y: AxisPlan;
}

const toGrid = (v: number) => Math.floor(v * GRID + 1e-6) / GRID;

/** Plans the overlap for margins (fractions of the crop) and a wished overlap (fraction of the tile). */
export function planOverlap(margins: MarginShares, wished: number, axes: Axes): OverlapPlan {
  const joined = joins(axes);
  const overlap = Math.max(2, Math.round(wished * GRID)) / GRID;
  const lackX = joined.x ? Math.max(0, overlap - margins.left - margins.right) : 0;
  const lackY = joined.y ? Math.max(0, overlap - margins.top - margins.bottom) : 0;
  const period = 1 - Math.max(lackX, lackY);
  const origin = toGrid((1 - period) / 2);
  const axis = (isJoined: boolean, before: number, after: number): AxisPlan => {
    if (!isJoined) return { joined: false, start: origin, origin };
    const centred = origin - toGrid(overlap / 2);
    const start = Math.min(Math.max(centred, -before), 1 + after - period - overlap);
    return { joined: true, start, origin };
  };
  return {
    overlap,
    period,
    x: axis(joined.x, margins.left, margins.right),
    y: axis(joined.y, margins.top, margins.bottom),
  };
}
