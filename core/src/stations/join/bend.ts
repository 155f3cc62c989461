import { smoothStep } from '../../lattice/smooth-step.ts';

/** By how much the two sides of a seam are moved towards each other, at even steps along it. */
export interface Bend {
  /** Shares of the tile's edge across the seam: across it and along it, at the middles of even steps over the strip's length. */
  across: number[];
  along: number[];
  cyclic: boolean;
}

/** Over how many overlaps the movement fades away on each side of the strip. */
const FADE = 2.2;

const indexAt = (k: number, n: number, cyclic: boolean): number =>
  cyclic ? ((k % n) + n) % n : Math.min(n - 1, Math.max(0, k));

/** Cubic (Catmull & Rom 1974) through even steps; `t` in steps. */
function through(values: number[], t: number, cyclic: boolean): number {
  const n = values.length;
  const k = Math.floor(t);
  const f = t - k;
  const a = values[indexAt(k - 1, n, cyclic)];
  const b = values[indexAt(k, n, cyclic)];
  const c = values[indexAt(k + 1, n, cyclic)];
  const d = values[indexAt(k + 2, n, cyclic)];
  return b + 0.5 * f * (c - a + f * (2 * a - 5 * b + 4 * c - d + f * (3 * (b - c) + d - a)));
}

/**
 * Movement at a place, in shares of the tile: `x` across the seam, which lies at 0 and 1, `t` along the
 * strip, 0..1 from its start to its end.
 * Each side moves half of the way, in full over the strip of ±`reach`, fading to nothing inside the tile.
 */
export function bendAt(bend: Bend, x: number, t: number, reach: number): [number, number] {
  const fade = Math.min(2 * reach * FADE, 0.5 - reach);
  const near = 1 - smoothStep(0, 1, (x - reach) / fade);
  const far = 1 - smoothStep(0, 1, (1 - reach - x) / fade);
  const share = (far - near) / 2;
  if (share === 0) return [0, 0];
  const step = t * bend.across.length - 0.5;
  return [share * through(bend.across, step, bend.cyclic), share * through(bend.along, step, bend.cyclic)];
}
