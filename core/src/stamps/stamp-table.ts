import type { Outline } from '../outline/outline.ts';
import { STAMPS, type Stamp, type StampName } from './stamps.ts';

/** Samples along each side of a stamp's table, and how far it reaches, in radii. */
const SIDE = 160;
export const REACH = 1.1;

/** A stamp sampled once: the distance to its border (negative inside) and its height, so that many of it cost little. */
export interface StampTable {
  distance: Float32Array;
  height: Float32Array;
}

const kept = new Map<StampName, StampTable>();

/** The samples of a stamp. */
export function stampTable(name: StampName): StampTable {
  const known = kept.get(name);
  if (known) return known;
  const { outline, profile }: Stamp = STAMPS[name];
  const table = { distance: new Float32Array(SIDE * SIDE), height: new Float32Array(SIDE * SIDE) };
  for (let j = 0, i = 0; j < SIDE; j++) {
    for (let k = 0; k < SIDE; k++, i++) {
      const [x, y] = [k, j].map((at) => REACH * ((2 * at) / (SIDE - 1) - 1));
      const distance = outline.distance(x, y);
      table.distance[i] = distance;
      table.height[i] = Math.min(1, Math.max(0, profile(x, y, Math.max(0, -distance))));
    }
  }
  kept.set(name, table);
  return table;
}

/** A value of a table at a place in radii, between its samples linear; beyond it the nearest. */
export function sampled(plane: Float32Array, x: number, y: number): number {
  const scale = (SIDE - 1) / (2 * REACH);
  const u = Math.min(SIDE - 1.001, Math.max(0, (x + REACH) * scale));
  const v = Math.min(SIDE - 1.001, Math.max(0, (y + REACH) * scale));
  const [k, j] = [u | 0, v | 0];
  const [s, t] = [u - k, v - j];
  const i = j * SIDE + k;
  const top = plane[i] + s * (plane[i + 1] - plane[i]);
  const low = plane[i + SIDE] + s * (plane[i + SIDE + 1] - plane[i + SIDE]);
  return top + t * (low - top);
}

/** A stamp as an outline of a radius, turned clockwise. */
export function stampOutline(name: StampName, radius: number, degrees: number): Outline {
  const { distance } = stampTable(name);
  const angle = (degrees * Math.PI) / 180;
  const [sin, cos] = [Math.sin(angle) / radius, Math.cos(angle) / radius];
  return {
    reach: radius,
    distance: (x, y) => radius * sampled(distance, x * cos + y * sin, y * cos - x * sin),
  };
}

/** How much a stamp covers of each pixel of a square of so many pixels a side, 0..1; the square reaches `REACH` radii each way. */
export function stampCover(name: StampName, side: number): Float32Array {
  const { distance } = stampTable(name);
  const pixel = (2 * REACH) / side;
  return Float32Array.from({ length: side * side }, (_, i) => {
    const [x, y] = [i % side, Math.floor(i / side)].map((at) => (at + 0.5) * pixel - REACH);
    return Math.min(1, Math.max(0, 0.5 - sampled(distance, x, y) / pixel));
  });
}
