import { cellOf, drawn } from './lattice';

/** Cells about one that are looked at, and how many of them touch it. */
const CELLS: usize = 25;
const TOUCHING: usize = 9;
/** Bytes of a point: x, y and value. */
const POINT: usize = 24;

/** Draws the points about a cell, from its corner. */
function enter(
  x: f64,
  y: f64,
  row: f64,
  rows: f64,
  shift: f64,
  seed: u32,
  around: usize,
  points: usize,
): void {
  for (let k: usize = 0; k < CELLS; k++) {
    const px = <f64>load<i32>(around + (k << 3));
    const py = <f64>load<i32>(around + (k << 3), 4);
    const cell = cellOf(x + px, y + py, row, rows, shift);
    const place = drawn(cell, seed);
    const at = points + k * POINT;
    store<f64>(at, px + <f64>(place & 0xffff) / 65536);
    store<f64>(at, py + <f64>(place >> 16) / 65536, 8);
    store<f64>(at, <f64>drawn(cell, seed + 0x51) / 4294967296, 16);
  }
}

/**
 * Cellular noise of points drawn one to a cell of a lattice that wraps (Worley 1996), at places in cells times `times`: 0 the
 * distance to the nearest point, 1 to the second nearest, 2 their difference, 3 the value of the nearest.
 */
export function cellNoise(
  xs: usize,
  ys: usize,
  out: usize,
  count: i32,
  times: f64,
  row: f64,
  rows: f64,
  shift: f64,
  seed: u32,
  measure: i32,
  around: usize,
  points: usize,
): void {
  let cellX: f64 = NaN;
  let cellY: f64 = NaN;
  const inner = points + TOUCHING * POINT;
  const end = points + CELLS * POINT;
  for (let i: usize = 0; i < (<usize>count) << 3; i += 8) {
    const x = times * load<f64>(xs + i);
    const y = times * load<f64>(ys + i);
    const x0 = Math.floor(x);
    const y0 = Math.floor(y);
    if (x0 !== cellX || y0 !== cellY) {
      cellX = x0;
      cellY = y0;
      enter(x0, y0, row, rows, shift, seed, around, points);
    }
    const fx = x - x0;
    const fy = y - y0;
    let first: f64 = Infinity;
    let second: f64 = Infinity;
    let value: f64 = 0;
    const away = 1 + Math.min(Math.min(fx, 1 - fx), Math.min(fy, 1 - fy));
    const ring = away * away;
    for (let at = points; at < end; at += POINT) {
      if (at === inner && second <= ring) break;
      const dx = load<f64>(at) - fx;
      const dy = load<f64>(at, 8) - fy;
      const square = dx * dx + dy * dy;
      if (square < first) {
        second = first;
        first = square;
        value = load<f64>(at, 16);
      } else if (square < second) second = square;
    }
    if (measure === 0) value = Math.sqrt(first);
    if (measure === 1) value = Math.sqrt(second);
    if (measure === 2) value = Math.sqrt(second) - Math.sqrt(first);
    store<f64>(out + i, value);
  }
}
