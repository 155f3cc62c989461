import type { Edges } from '../raster/edges.ts';
import { PAUSE_ROWS, type Steps } from '../work/steps.ts';
import type { Outline } from './outline.ts';

/** A tile that outlines are drawn on: its sides in pixels, and in the unit of the outlines. */
export interface Canvas {
  width: number;
  height: number;
  unitsAcross: number;
  unitsDown: number;
  edges: Edges;
}

/** Where an outline lies: its middle as shares of the tile's sides. */
export interface Spot {
  x: number;
  y: number;
}

/** Pieces of an axis of `n` pixels that a span from `low` to `high` touches, each with the whole tiles it is shifted by. */
function stretches(
  low: number,
  high: number,
  n: number,
  wraps: boolean,
): { from: number; to: number; tiles: number }[] {
  const [first, last] = wraps ? [Math.floor(low / n), Math.floor((high - 1e-9) / n)] : [0, 0];
  const found = [];
  for (let tiles = first; tiles <= last; tiles++) {
    const from = Math.max(0, Math.floor(low - tiles * n));
    const to = Math.min(n, Math.ceil(high - tiles * n));
    if (to > from) found.push({ from, to, tiles });
  }
  return found;
}

/**
 * Visits every pixel that an outline may touch, on axes that wrap also those it touches beyond the edge; `visit` is given the
 * pixel's index, the distance to the border in units (negative inside), and where it is from the middle.
 */
export function* visiting(
  canvas: Canvas,
  { x, y }: Spot,
  outline: Outline,
  margin: number,
  visit: (i: number, distance: number, dx: number, dy: number) => void,
): Steps<void> {
  const { width, height, unitsAcross, unitsDown, edges } = canvas;
  const [perX, perY] = [unitsAcross / width, unitsDown / height];
  const reach = outline.reach + margin;
  const rows = stretches(y * height - reach / perY, y * height + reach / perY, height, edges.y === 'wrap');
  const columns = stretches(x * width - reach / perX, x * width + reach / perX, width, edges.x === 'wrap');
  let done = 0;
  for (const row of rows) {
    for (let py = row.from; py < row.to; py++) {
      const dy = (py + 0.5 + row.tiles * height - y * height) * perY;
      for (const column of columns) {
        for (let px = column.from; px < column.to; px++) {
          const dx = (px + 0.5 + column.tiles * width - x * width) * perX;
          visit(py * width + px, outline.distance(dx, dy), dx, dy);
        }
      }
      if (++done % PAUSE_ROWS === 0) yield;
    }
  }
}

/**
 * How much of each pixel an outline covers, 0..1: half where its border goes through the middle, over one pixel or over `soft`
 * units where that is more.
 */
export function* filling(canvas: Canvas, spot: Spot, outline: Outline, soft = 0): Steps<Float32Array> {
  const out = new Float32Array(canvas.width * canvas.height);
  const pixel = Math.sqrt((canvas.unitsAcross / canvas.width) * (canvas.unitsDown / canvas.height));
  const fade = Math.max(pixel, soft);
  yield* visiting(canvas, spot, outline, fade, (i, distance) => {
    const share = Math.min(1, Math.max(0, 0.5 - distance / fade));
    if (share > out[i]) out[i] = share;
  });
  return out;
}
