import type { Loop } from '../outline/boundary.ts';
import type { Edges } from '../raster/edges.ts';
import type { Sides } from '../raster/sides.ts';
import { wrapped } from '../raster/wrapped.ts';
import type { Patch } from './stroke.ts';

/** How far a stroke goes beyond the lines around its patch: in shares of the longer edge, and at least in pixels. */
const MARGIN = 1 / 512;
const LEAST_MARGIN = 1.5;

type Field = Sides & { edges: Edges };

/** Columns or rows in pixels, not wrapped. */
interface Span {
  from: number;
  to: number;
}

/** What of the tile a patch may paint: a box in pixels, not wrapped, and where in it, or all of it. */
interface Room {
  across: Span;
  down: Span;
  inside: Uint8Array | null;
}

/** Lengths on the surface of a patch beside pixels of the tile. */
interface Scale {
  /** Pixels of the longer edge. */
  longer: number;
  /** The side of a pixel on the surface, in pixels of the longer edge. */
  pixel: number;
}

export function scaleOf({ frame: [a, , d] }: Patch, { width, height }: Sides): Scale {
  const longer = Math.max(width, height);
  return { longer, pixel: longer * Math.sqrt(1 / (width * height * a * d)) };
}

/** Marks pixels whose middles lie within closed lines, by the even–odd rule. */
function marked(loops: readonly Loop[], { across, down }: Room, { width, height }: Sides): Uint8Array {
  const columns = across.to - across.from;
  const inside = new Uint8Array(columns * (down.to - down.from));
  for (let y = down.from; y < down.to; y++) {
    const meets: number[] = [];
    const level = (y + 0.5) / height;
    for (const loop of loops) {
      for (let k = 0; k < loop.length; k += 2) {
        const [ax, ay] = [loop[k], loop[k + 1]];
        const [bx, by] = [loop[(k + 2) % loop.length], loop[(k + 3) % loop.length]];
        if (ay > level !== by > level) meets.push(ax + ((level - ay) / (by - ay)) * (bx - ax));
      }
    }
    meets.sort((a, b) => a - b);
    for (let k = 0; k + 1 < meets.length; k += 2) {
      const first = Math.max(across.from, Math.ceil(meets[k] * width - 0.5));
      const last = Math.min(across.to, Math.ceil(meets[k + 1] * width - 0.5));
      if (first < last) {
        const row = (y - down.from) * columns - across.from;
        inside.fill(1, row + first, row + last);
      }
    }
  }
  return inside;
}

/** Marks grown by so many pixels along the rows or the columns. */
function widened(marks: Uint8Array, count: number, step: number, lines: number, by: number): Uint8Array {
  const out = new Uint8Array(marks.length);
  const across = step === 1 ? count : 1;
  for (let line = 0; line < lines; line++) {
    // How far the last mark lies back, from either side.
    for (const way of [1, -1]) {
      let away = by + 1;
      for (let k = 0; k < count; k++) {
        const i = line * across + (way > 0 ? k : count - 1 - k) * step;
        away = marks[i] ? 0 : away + 1;
        if (away <= by) out[i] = 1;
      }
    }
  }
  return out;
}

/** The box of the tile that a patch may paint with a brush of a radius, as a share of the longer edge, and where in it. */
export function roomOf({ points, frame: [a, b, d], within }: Patch, reach: number, field: Sides): Room {
  const { width, height } = field;
  const longer = Math.max(width, height);
  const margin = Math.ceil(Math.max(LEAST_MARGIN, MARGIN * longer));
  const [farU, farV] = [reach * Math.hypot(a, b), reach * d];
  const spanOf = (at: 0 | 1, far: number, n: number): Span => {
    let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
    for (const point of points) {
      low = Math.min(low, point[at]);
      high = Math.max(high, point[at]);
    }
    return { from: Math.floor((low - far) * n) - 1, to: Math.ceil((high + far) * n) + 1 };
  };
  const room: Room = { across: spanOf(0, farU, width), down: spanOf(1, farV, height), inside: null };
  if (!within) return room;
  const [columns, rows] = [room.across.to - room.across.from, room.down.to - room.down.from];
  const alongRows = widened(marked(within, room, field), columns, 1, rows, margin);
  return { ...room, inside: widened(alongRows, rows, columns, columns, margin) };
}

/**
 * Visits pixels of a patch about a stretch of it: whose places on the surface, in pixels of the longer edge, lie in a box. What
 * leaves the tile comes in again on axes that wrap. `visit` is given the pixel's index and its place on the surface.
 */
export function visitPatch(
  { frame: [a, b, d] }: Patch,
  { across, down, inside }: Room,
  { width, height, edges }: Field,
  [left, top, right, bottom]: readonly [number, number, number, number],
  visit: (i: number, x: number, y: number) => void,
): void {
  const longer = Math.max(width, height);
  const columns = across.to - across.from;
  const [perY, perX] = [height / longer, width / longer];
  const firstRow = Math.max(down.from, Math.floor(d * top * perY - 0.5));
  const lastRow = Math.min(down.to, Math.ceil(d * bottom * perY + 0.5));
  for (let py = firstRow; py < lastRow; py++) {
    const row = edges.y === 'wrap' ? wrapped(py, height) : py;
    if (row < 0 || row >= height) continue;
    const y = (py + 0.5) / perY / d;
    const first = Math.max(across.from, Math.floor((a * left + b * y) * perX - 0.5));
    const last = Math.min(across.to, Math.ceil((a * right + b * y) * perX + 0.5));
    for (let px = first; px < last; px++) {
      if (inside && !inside[(py - down.from) * columns + px - across.from]) continue;
      const column = edges.x === 'wrap' ? wrapped(px, width) : px;
      if (column < 0 || column >= width) continue;
      visit(row * width + column, ((px + 0.5) / perX - b * y) / a, y);
    }
  }
}

/** The way of a patch on the surface in pixels of the longer edge, and how much of the radius lies on it there, and where the pen leans. */
export function wayOf(
  { points, frame: [a, b, d] }: Patch,
  { longer }: Scale,
): { x: number; y: number; share: number; lean: number }[] {
  return points.map(([u, v, share, lean = 0]) => {
    const y = v / d;
    return { x: ((u - b * y) / a) * longer, y: y * longer, share, lean };
  });
}

/** Visits the pixels that a band along the way of a patch covers, with how much, 0..1; a pixel may be visited several times. */
export function coverPatch(
  patch: Patch,
  { radius, softness }: { radius: number; softness: number },
  field: Field,
  visit: (i: number, share: number) => void,
): void {
  const scale = scaleOf(patch, field);
  const room = roomOf(patch, radius, field);
  const way = wayOf(patch, scale);
  const least = 0.5 * scale.pixel;
  for (const [k, b] of way.entries()) {
    const a = way[Math.max(0, k - 1)];
    const [ra, rb] = [a, b].map(({ share }) => Math.max(least, share * radius * scale.longer));
    const [dx, dy] = [b.x - a.x, b.y - a.y];
    const square = dx * dx + dy * dy;
    const reach = Math.max(ra, rb) + scale.pixel;
    const box = [
      Math.min(a.x, b.x) - reach,
      Math.min(a.y, b.y) - reach,
      Math.max(a.x, b.x) + reach,
      Math.max(a.y, b.y) + reach,
    ] as const;
    visitPatch(patch, room, field, box, (i, x, y) => {
      const [fromX, fromY] = [x - a.x, y - a.y];
      const t = square > 0 ? Math.min(1, Math.max(0, (fromX * dx + fromY * dy) / square)) : 0;
      const own = ra + t * (rb - ra);
      const soft = softness * own;
      // A hard edge still takes one pixel to fade.
      const fade = Math.max(scale.pixel, soft);
      const outside = own + (fade - soft) / 2 - Math.hypot(fromX - t * dx, fromY - t * dy);
      if (outside <= 0) return;
      const s = Math.min(1, outside / fade);
      visit(i, s * s * (3 - 2 * s));
    });
  }
}
