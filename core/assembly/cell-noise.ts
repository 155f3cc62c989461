import { cellOf, drawn } from './lattice';

/** Cells about one that are looked at, and how many of them touch it. */
const CELLS: usize = 25;
const TOUCHING: usize = 9;
/** Bytes of a point: x, y and value. */
const POINT: usize = 24;

/** Draws some of the points about a cell, from its corner; their values only where they are asked for. */
function draw(
  first: usize,
  end: usize,
  x: f64,
  y: f64,
  row: f64,
  rows: f64,
  shift: f64,
  seed: u32,
  around: usize,
  points: usize,
  isValued: bool,
): void {
  for (let k = first; k < end; k++) {
    const px = <f64>load<i32>(around + (k << 3));
    const py = <f64>load<i32>(around + (k << 3), 4);
    const cell = cellOf(x + px, y + py, row, rows, shift);
    const place = drawn(cell, seed);
    const at = points + k * POINT;
    store<f64>(at, px + <f64>(place & 0xffff) / 65536);
    store<f64>(at, py + <f64>(place >> 16) / 65536, 8);
    if (isValued) store<f64>(at, <f64>drawn(cell, seed + 0x51) / 4294967296, 16);
  }
}

/** How far points of the outer ring are away at least, squared, of two places. */
function ringOf2(fx: v128, fy: v128): v128 {
  const one = f64x2.splat(1);
  const least = f64x2.pmin(f64x2.pmin(fx, f64x2.sub(one, fx)), f64x2.pmin(fy, f64x2.sub(one, fy)));
  const away = f64x2.add(one, least);
  return f64x2.mul(away, away);
}

/** The squares of the distances of two places to the nearest of the points that touch their cell. */
function nearest2(points: usize, inner: usize, fx2: v128, fy2: v128): v128 {
  let first2 = f64x2.splat(Infinity);
  for (let at = points; at < inner; at += POINT) {
    const dx2 = f64x2.sub(v128.load64_splat(at), fx2);
    const dy2 = f64x2.sub(v128.load64_splat(at, 8), fy2);
    first2 = f64x2.pmin(first2, f64x2.add(f64x2.mul(dx2, dx2), f64x2.mul(dy2, dy2)));
  }
  return first2;
}

/** What is asked for of two places, by the squares of their distances to the nearest points and its values. */
function measured2(measure: i32, first: v128, second: v128, value: v128): v128 {
  if (measure === 0) return f64x2.sqrt(first);
  if (measure === 1) return f64x2.sqrt(second);
  if (measure === 2) return f64x2.sub(f64x2.sqrt(second), f64x2.sqrt(first));
  return value;
}

/**
 * Cellular noise of points drawn one to a cell of a lattice that wraps (Worley 1996), at places in cells times `times`: 0 the
 * distance to the nearest point, 1 to the second nearest, 2 their difference, 3 the value of the nearest. Two neighbours go
 * together where they lie in one cell and no point of the outer ring can be near.
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
  // Whether the nearest point is enough.
  const isNearest = measure === 0 || measure === 3;
  const isValued = measure === 3;
  let cellX: f64 = NaN;
  let cellY: f64 = NaN;
  // Points of the outer ring are drawn where they are looked at, which is seldom.
  let isRingDrawn = false;
  const inner = points + TOUCHING * POINT;
  const end = points + CELLS * POINT;
  const bytes: usize = (<usize>count) << 3;
  const both = f64x2.splat(times);
  for (let i: usize = 0; i < bytes; i += 8) {
    const x = times * load<f64>(xs + i);
    const y = times * load<f64>(ys + i);
    const x0 = Math.floor(x);
    const y0 = Math.floor(y);
    if (x0 !== cellX || y0 !== cellY) {
      cellX = x0;
      cellY = y0;
      draw(0, TOUCHING, x0, y0, row, rows, shift, seed, around, points, isValued);
      isRingDrawn = false;
    }
    if (i + 8 < bytes) {
      const x2 = f64x2.mul(both, v128.load(xs + i));
      const y2 = f64x2.mul(both, v128.load(ys + i));
      const cellX2 = f64x2.splat(cellX);
      const cellY2 = f64x2.splat(cellY);
      const isIn = v128.and(f64x2.eq(f64x2.floor(x2), cellX2), f64x2.eq(f64x2.floor(y2), cellY2));
      if (i64x2.all_true(isIn)) {
        const fx2 = f64x2.sub(x2, cellX2);
        const fy2 = f64x2.sub(y2, cellY2);
        const ring2 = ringOf2(fx2, fy2);
        if (measure === 0) {
          const first2 = nearest2(points, inner, fx2, fy2);
          if (i64x2.all_true(f64x2.le(first2, ring2))) {
            v128.store(out + i, f64x2.sqrt(first2));
            i += 8;
            continue;
          }
        }
        let first2 = f64x2.splat(Infinity);
        let second2 = f64x2.splat(Infinity);
        let value2 = f64x2.splat(0);
        for (let at = points; at < inner; at += POINT) {
          const dx2 = f64x2.sub(v128.load64_splat(at), fx2);
          const dy2 = f64x2.sub(v128.load64_splat(at, 8), fy2);
          const square2 = f64x2.add(f64x2.mul(dx2, dx2), f64x2.mul(dy2, dy2));
          value2 = v128.bitselect(v128.load64_splat(at, 16), value2, f64x2.lt(square2, first2));
          second2 = f64x2.pmin(second2, f64x2.pmax(first2, square2));
          first2 = f64x2.pmin(first2, square2);
        }
        if (i64x2.all_true(f64x2.le(isNearest ? first2 : second2, ring2))) {
          v128.store(out + i, measured2(measure, first2, second2, value2));
          i += 8;
          continue;
        }
      }
    }
    const fx = x - x0;
    const fy = y - y0;
    let first: f64 = Infinity;
    let second: f64 = Infinity;
    let value: f64 = 0;
    const away = 1 + Math.min(Math.min(fx, 1 - fx), Math.min(fy, 1 - fy));
    const ring = away * away;
    for (let at = points; at < end; at += POINT) {
      if (at === inner) {
        if ((isNearest ? first : second) <= ring) break;
        if (!isRingDrawn) draw(TOUCHING, CELLS, x0, y0, row, rows, shift, seed, around, points, isValued);
        isRingDrawn = true;
      }
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
