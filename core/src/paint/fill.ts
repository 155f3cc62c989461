import { linearToOklab } from '../colour/oklab.ts';
import type { Edges } from '../raster/edges.ts';
import type { Sides } from '../raster/sides.ts';

/** What is seen where something is to be filled: linear RGB of a pixel. */
export type Seen = (i: number) => readonly [number, number, number];

/** What a fill puts down: its pixels, how much of each, and the linear RGB of the line that covers the rest. */
export interface Filled {
  pixels: number[];
  shares: number[];
  lines: (readonly [number, number, number] | null)[];
}

export interface Filling {
  /** How far a colour may be from that of the place pressed, in OKLab. */
  tolerance: number;
  /** Gaps up to this width are closed, in shares of the tile's longer edge. */
  gap: number;
}

/** Pixels beyond a region in which its border may be mixed with it. */
const BORDER = 2;

type Grid = Sides & { edges: Edges };

/** The neighbour of a place on an axis, −1 beyond an open edge. */
const beside = (at: number, by: number, n: number, wraps: boolean): number => {
  const to = at + by;
  if (to >= 0 && to < n) return to;
  return wraps ? (to + n) % n : -1;
};

/** Grows what is set by so many pixels to all sides, along one axis after the other. */
function grown(from: Uint8Array, by: number, { width, height, edges }: Grid): Uint8Array {
  const along = (plane: Uint8Array, n: number, lines: number, step: number, jump: number, wraps: boolean) => {
    const out = new Uint8Array(plane.length);
    for (let line = 0; line < lines; line++) {
      for (let k = 0; k < n; k++) {
        if (plane[line * jump + k * step] === 0) continue;
        for (let d = -by; d <= by; d++) {
          const to = beside(k, d, n, wraps);
          if (to >= 0) out[line * jump + to * step] = 1;
        }
      }
    }
    return out;
  };
  const across = along(from, width, height, 1, width, edges.x === 'wrap');
  return along(across, height, width, width, 1, edges.y === 'wrap');
}

/** What is connected to a pixel over pixels that are open, by their sides. */
function connected(open: Uint8Array, start: number, { width, height, edges }: Grid): Uint8Array {
  const out = new Uint8Array(open.length);
  if (open[start] === 0) return out;
  const queue = new Int32Array(open.length);
  let [read, write] = [0, 0];
  const visit = (x: number, y: number) => {
    const i = y * width + x;
    if (x < 0 || y < 0 || open[i] === 0 || out[i] !== 0) return;
    out[i] = 1;
    queue[write++] = i;
  };
  visit(start % width, Math.floor(start / width));
  while (read < write) {
    const i = queue[read++];
    const [x, y] = [i % width, Math.floor(i / width)];
    visit(beside(x, -1, width, edges.x === 'wrap'), y);
    visit(beside(x, 1, width, edges.x === 'wrap'), y);
    visit(x, beside(y, -1, height, edges.y === 'wrap'));
    visit(x, beside(y, 1, height, edges.y === 'wrap'));
  }
  return out;
}

/**
 * The connected region of like colour about a pixel, over joined edges. Gaps in its border up to a width are closed: what is
 * not like it is grown by half of that, and the region found between is grown back. At an anti-aliased border the line keeps
 * its share of each pixel, by its colour unmixed between the region's and the farthest beside it, so that no fringe is left.
 */
export function filled(seen: Seen, start: number, { tolerance, gap }: Filling, grid: Grid): Filled {
  const { width, height, edges } = grid;
  const labOf = (i: number) => linearToOklab(...(seen(i) as [number, number, number]));
  const [L, a, b] = labOf(start);
  const away = new Float32Array(width * height);
  const open = new Uint8Array(away.length);
  for (let i = 0; i < away.length; i++) {
    const [l, u, v] = labOf(i);
    away[i] = Math.hypot(l - L, u - a, v - b);
    open[i] = away[i] <= tolerance ? 1 : 0;
  }
  const half = Math.round((gap * Math.max(width, height)) / 2);
  let region = connected(open, start, grid);
  if (half > 0) {
    const walls = grown(
      open.map((one) => 1 - one),
      half,
      grid,
    );
    const inner = connected(
      open.map((one, i) => (walls[i] === 0 ? one : 0)),
      start,
      grid,
    );
    // A place nearer to its border than half a gap is filled as it is.
    if (inner[start] !== 0) region = grown(inner, half, grid).map((one, i) => one & open[i]);
  }
  const found: Filled = { pixels: [], shares: [], lines: [] };
  const border = grown(region, BORDER, grid);
  for (let i = 0; i < region.length; i++) {
    if (border[i] === 0) continue;
    if (region[i] !== 0) {
      found.pixels.push(i);
      found.shares.push(1);
      found.lines.push(null);
      continue;
    }
    const [x, y] = [i % width, Math.floor(i / width)];
    let farthest = i;
    for (let dy = -BORDER; dy <= BORDER; dy++) {
      for (let dx = -BORDER; dx <= BORDER; dx++) {
        const [u, v] = [beside(x, dx, width, edges.x === 'wrap'), beside(y, dy, height, edges.y === 'wrap')];
        if (u >= 0 && v >= 0 && away[v * width + u] > away[farthest]) farthest = v * width + u;
      }
    }
    const share = 1 - away[i] / away[farthest];
    if (share <= 0.02) continue;
    found.pixels.push(i);
    found.shares.push(share);
    found.lines.push(seen(farthest));
  }
  return found;
}
