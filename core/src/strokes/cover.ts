import type { Edges } from '../raster/edges.ts';
import { radiusShare } from './pressure.ts';
import type { Stroke } from './stroke.ts';

/**
 * A piece of a plane of `across` × `down` pixels, `width` × `height` from (`x`, `y`). On an axis that wraps it
 * may begin anywhere and go on over the edge.
 */
export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

export interface Cover extends Box {
  /** How much of each pixel of the box is covered, 0..1. */
  values: Float32Array;
}

/** Longest piece of a stroke that is drawn at once, in shares of the tile. */
const PIECE = 0.25;

interface Dab {
  x: number;
  y: number;
  radius: number;
}

function dabsOf({ points, radius }: Stroke, width: number, height: number): Dab[] {
  const reach = radius * Math.max(width, height);
  const dabs: Dab[] = [];
  for (const [x, y, pressure = 1] of points) {
    const to = {
      x: x * width,
      y: y * height,
      radius: Math.max(0.5, reach * radiusShare(pressure)),
    };
    const from = dabs.at(-1);
    const way = from ? Math.max(Math.abs(to.x - from.x) / width, Math.abs(to.y - from.y) / height) : 0;
    const pieces = Math.ceil(way / PIECE);
    for (let k = 1; from && k < pieces; k++) {
      const t = k / pieces;
      dabs.push({
        x: from.x + t * (to.x - from.x),
        y: from.y + t * (to.y - from.y),
        radius: from.radius + t * (to.radius - from.radius),
      });
    }
    dabs.push(to);
  }
  return dabs;
}

/** Where the span from `low` to `high` lies on an axis of `n` pixels: whole where it wraps all round, cut off where it does not. */
function span(low: number, high: number, n: number, wraps: boolean): { start: number; length: number } {
  const first = Math.floor(low);
  const last = Math.ceil(high);
  if (wraps) return last - first >= n ? { start: 0, length: n } : { start: first, length: last - first };
  const start = Math.min(n, Math.max(0, first));
  return { start, length: Math.max(0, Math.min(n, last) - start) };
}

/** The whole column or row of a box for a place on the axis, or −1 outside. */
function inBox(i: number, start: number, length: number, n: number, wraps: boolean): number {
  const at = wraps ? (((i - start) % n) + n) % n : i - start;
  return at >= 0 && at < length ? at : -1;
}

/** The columns or rows of a box for places from one up to another, −1 outside. */
function placesIn(
  from: number,
  to: number,
  start: number,
  length: number,
  n: number,
  wraps: boolean,
): Int32Array {
  return Int32Array.from({ length: Math.max(0, to - from) }, (_, k) =>
    inBox(from + k, start, length, n, wraps),
  );
}

/** Raises the cover of the box where the capsule from `a` to `b` lies over it. */
function drawCapsule(
  cover: Cover,
  a: Dab,
  b: Dab,
  softness: number,
  width: number,
  height: number,
  edges: Edges,
): void {
  const { values } = cover;
  const reach = Math.max(a.radius, b.radius) + 1;
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const square = dx * dx + dy * dy;
  const [left, right] = [Math.floor(Math.min(a.x, b.x) - reach), Math.ceil(Math.max(a.x, b.x) + reach)];
  const [top, bottom] = [Math.floor(Math.min(a.y, b.y) - reach), Math.ceil(Math.max(a.y, b.y) + reach)];
  const columns = placesIn(left, right, cover.x, cover.width, width, edges.x === 'wrap');
  const rows = placesIn(top, bottom, cover.y, cover.height, height, edges.y === 'wrap');
  const [perX, perY] = square > 0 ? [dx / square, dy / square] : [0, 0];
  const apart = b.radius - a.radius;
  const far = reach * reach;
  for (let j = 0; j < rows.length; j++) {
    if (rows[j] < 0) continue;
    const line = rows[j] * cover.width;
    const fromY = top + j + 0.5 - a.y;
    for (let k = 0; k < columns.length; k++) {
      const fromX = left + k + 0.5 - a.x;
      const along = fromX * perX + fromY * perY;
      const t = Math.min(1, Math.max(0, along));
      const [restX, restY] = [fromX - t * dx, fromY - t * dy];
      const away2 = restX * restX + restY * restY;
      if (away2 >= far || columns[k] < 0) continue;
      const radius = a.radius + t * apart;
      // A hard edge still takes one pixel to fade.
      const soft = softness * radius;
      const fade = Math.max(1, soft);
      const outside = radius + (fade - soft) / 2 - Math.sqrt(away2);
      if (outside <= 0) continue;
      const s = Math.min(1, outside / fade);
      const share = s * s * (3 - 2 * s);
      if (share > values[line + columns[k]]) values[line + columns[k]] = share;
    }
  }
}

/**
 * How much a stroke covers of a plane of `width` × `height` pixels, in the smallest box that holds it: on
 * axes that wrap it comes in again on the other side, on others it is cut off. The box is empty
 * (width or height 0) where the stroke lies wholly outside.
 */
export function coverOf(stroke: Stroke, width: number, height: number, edges: Edges): Cover {
  const dabs = dabsOf(stroke, width, height);
  const bounds = (axis: 'x' | 'y', n: number) => {
    let low = Number.POSITIVE_INFINITY;
    let high = Number.NEGATIVE_INFINITY;
    for (const dab of dabs) {
      low = Math.min(low, dab[axis] - dab.radius - 1);
      high = Math.max(high, dab[axis] + dab.radius + 1);
    }
    return span(low, high, n, edges[axis] === 'wrap');
  };
  const [across, down] = [bounds('x', width), bounds('y', height)];
  const cover: Cover = {
    x: across.start,
    y: down.start,
    width: across.length,
    height: down.length,
    values: new Float32Array(across.length * down.length),
  };
  dabs.forEach((dab, k) => {
    drawCapsule(cover, dabs[Math.max(0, k - 1)], dab, stroke.softness, width, height, edges);
  });
  return cover;
}

/** How much an outline covers: pixels whose centre lies inside count whole (even–odd rule). Places in shares of the tile. */
export function coverOfOutline(
  outline: [number, number][],
  width: number,
  height: number,
  edges: Edges,
): Cover {
  const xs = outline.map(([x]) => x * width);
  const ys = outline.map(([, y]) => y * height);
  const across = span(Math.min(...xs) - 1, Math.max(...xs) + 1, width, edges.x === 'wrap');
  const down = span(Math.min(...ys) - 1, Math.max(...ys) + 1, height, edges.y === 'wrap');
  const values = new Float32Array(across.length * down.length);
  const box = { x: across.start, y: down.start, width: across.length, height: down.length };
  for (let py = Math.floor(Math.min(...ys)); py <= Math.max(...ys); py++) {
    const row = inBox(py, box.y, box.height, height, edges.y === 'wrap');
    if (row < 0) continue;
    const meets: number[] = [];
    const y = py + 0.5;
    for (let k = 0; k < xs.length; k++) {
      const n = (k + 1) % xs.length;
      if (ys[k] > y === ys[n] > y) continue;
      meets.push(xs[k] + ((y - ys[k]) / (ys[n] - ys[k])) * (xs[n] - xs[k]));
    }
    meets.sort((a, b) => a - b);
    for (let k = 0; k + 1 < meets.length; k += 2) {
      for (let px = Math.ceil(meets[k] - 0.5); px < meets[k + 1] - 0.5; px++) {
        const column = inBox(px, box.x, box.width, width, edges.x === 'wrap');
        if (column >= 0) values[row * box.width + column] = 1;
      }
    }
  }
  return { ...box, values };
}
