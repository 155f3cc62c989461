/** Bytes of a stroke's values in 64 bits, one after another: see the reference. */
const STROKE: usize = 17 * 8;
/** Samples of a print along the stroke and across it, of the finest of three levels; alpha and ridge of each. */
const COLUMNS: i32 = 256;
const ROWS: i32 = 64;
const LEVELS: i32 = 3;
const SAMPLE_SHIFT: i32 = 3;
const ROW_SHIFT: i32 = 11;
/** Samples across a print that each pixel across a stroke has at least. */
const PER_PIXEL: f64 = 0.8;
const FAR: f32 = 1e18;
/** Cover below which a pixel is left as it is. */
const FAINT: f32 = 0.004;
/** How far a piece of a spine counts beyond its ends at least, in pixels: rounding leaves no gap between two of them. */
const BEYOND: f32 = 0.05;
const LEVEL: f32 = 1e-6;

/** A piece of a spine, from the corner of the stroke's box: start, direction, length, and how far along it begins. */
const PIECE: usize = 24;
const DX: usize = 8;
const DY: usize = 12;
const LENGTH: usize = 16;
const ALONG: usize = 20;

/** Puts the pieces of a spine into a table. */
function enter(points: usize, count: i32, x0: i32, y0: i32, table: usize): void {
  let along: f64 = 0;
  for (let i = 1; i < count; i++) {
    const a = points + ((<usize>(2 * i - 2)) << 3);
    const dx = load<f64>(a, 16) - load<f64>(a);
    const dy = load<f64>(a, 24) - load<f64>(a, 8);
    const length = Math.sqrt(dx * dx + dy * dy);
    const at = table + <usize>(i - 1) * PIECE;
    store<f32>(at, <f32>(load<f64>(a) - <f64>x0));
    store<f32>(at, <f32>(load<f64>(a, 8) - <f64>y0), 4);
    store<f32>(at, <f32>(dx / length), DX);
    store<f32>(at, <f32>(dy / length), DY);
    store<f32>(at, <f32>length, LENGTH);
    store<f32>(at, <f32>along, ALONG);
    along += length;
  }
}

/** How far two pieces of a spine count beyond the place where they meet: the sine of half the turn there, times the reach. */
function beyond(piece: usize, next: usize, reach: f32): f32 {
  const x = load<f32>(next, DX) - load<f32>(piece, DX);
  const y = load<f32>(next, DY) - load<f32>(piece, DY);
  return <f32>0.5 * sqrt(x * x + y * y) * reach + BEYOND;
}

/**
 * For each pixel of some rows of the stroke's box the square of its distance to the spine, how far along it lies and on which
 * side: three fields of `room` bytes, `across` pixels a row. `spans` holds for each row between which pixels any was found.
 */
function measure(
  table: usize,
  pieces: i32,
  low: i32,
  high: i32,
  across: i32,
  radius: f32,
  field: usize,
  room: usize,
  spans: usize,
): void {
  const reach = radius + 1;
  const most = f32x4.splat(reach * reach);
  const zero = f32x4.splat(0);
  const end: usize = (<usize>(across * (high - low + 1))) << 2;
  for (let at: usize = 0; at < end; at += 16) v128.store(field + at, f32x4.splat(FAR));
  for (let y = low; y <= high; y++) {
    store<i32>(spans + ((<usize>(y - low)) << 3), across);
    store<i32>(spans + ((<usize>(y - low)) << 3), -1, 4);
  }
  for (let k = 0; k < pieces; k++) {
    const piece = table + <usize>k * PIECE;
    const ax = load<f32>(piece);
    const ay = load<f32>(piece, 4);
    const dx = load<f32>(piece, DX);
    const dy = load<f32>(piece, DY);
    const length = load<f32>(piece, LENGTH);
    const along = f32x4.splat(load<f32>(piece, ALONG));
    // Beyond its ends a stroke has no paint; outside of a bend it is round, half of which belongs to each piece.
    const before: f32 = k === 0 ? 0 : -beyond(piece - PIECE, piece, reach);
    const after: f32 = k === pieces - 1 ? length : length + beyond(piece, piece + PIECE, reach);
    const byX: f32 = abs(dx) > LEVEL ? 1 / dx : 0;
    const byY: f32 = abs(dy) > LEVEL ? 1 / dy : 0;
    // Half the height of the strip, and how high its axis reaches.
    const half = reach * abs(dx);
    const top = ay + min(before * dy, after * dy) - half;
    const bottom = ay + max(before * dy, after * dy) + half;
    const from = max(low, <i32>floor(max(top, <f32>low)));
    const to = min(high, <i32>ceil(min(bottom, <f32>high)));
    const right4 = f32x4.splat(dx);
    const down4 = f32x4.splat(dy);
    const whole = f32x4.splat(length);
    const first4 = f32x4.splat(before);
    const last4 = f32x4.splat(after);
    for (let y = from; y <= to; y++) {
      const qy = <f32>y - ay;
      let left: f32 = -FAR;
      let right: f32 = FAR;
      if (byY !== 0) {
        const one = (qy * dx - reach) * byY;
        const other = (qy * dx + reach) * byY;
        left = min(one, other);
        right = max(one, other);
      }
      if (byX !== 0) {
        const one = (before - qy * dy) * byX;
        const other = (after - qy * dy) * byX;
        left = max(left, min(one, other));
        right = min(right, max(one, other));
      }
      const x0 = max(0, <i32>floor(max(ax + left, 0)));
      const x1 = min(across - 1, <i32>ceil(min(ax + right, <f32>across)));
      if (x0 > x1) continue;
      const span = spans + ((<usize>(y - low)) << 3);
      store<i32>(span, min(load<i32>(span), x0));
      store<i32>(span, max(load<i32>(span, 4), x1), 4);
      const row = field + ((<usize>((y - low) * across)) << 2);
      const down = f32x4.splat(qy);
      const downAlong = f32x4.mul(down, down4);
      const downAcross = f32x4.mul(down, right4);
      let qx = f32x4.sub(f32x4.add(f32x4.splat(<f32>(x0 & ~3)), f32x4(0, 1, 2, 3)), f32x4.splat(ax));
      for (let x = x0 & ~3; x <= x1; x += 4) {
        const place = row + ((<usize>x) << 2);
        const t = f32x4.add(f32x4.mul(qx, right4), downAlong);
        const held = f32x4.pmax(zero, f32x4.pmin(whole, t));
        const ex = f32x4.sub(qx, f32x4.mul(right4, held));
        const ey = f32x4.sub(down, f32x4.mul(down4, held));
        const square = f32x4.add(f32x4.mul(ex, ex), f32x4.mul(ey, ey));
        const known = v128.load(place);
        let isNearer = v128.and(f32x4.le(square, most), f32x4.lt(square, known));
        isNearer = v128.and(isNearer, v128.and(f32x4.ge(t, first4), f32x4.le(t, last4)));
        const side = f32x4.sub(downAcross, f32x4.mul(qx, down4));
        v128.store(place, v128.bitselect(square, known, isNearer));
        const on = place + room;
        v128.store(on, v128.bitselect(f32x4.add(along, held), v128.load(on), isNearer));
        const by = place + 2 * room;
        v128.store(by, v128.bitselect(side, v128.load(by), isNearer));
        qx = f32x4.add(qx, f32x4.splat(4));
      }
    }
  }
}

/** A print's alpha and ridge at a place between its samples, as the first two lanes. */
function printAt(at: usize, row: usize, fx: f32, fy: f32): v128 {
  // Two neighbours of a row lie in one vector.
  const top = v128.load(at);
  const column = f32x4.add(top, f32x4.mul(f32x4.splat(fy), f32x4.sub(v128.load(at + row), top)));
  const next = v128.shuffle<f32>(column, column, 2, 3, 0, 1);
  return f32x4.add(column, f32x4.mul(f32x4.splat(fx), f32x4.sub(next, column)));
}

/** What a stroke paints, and what a pixel must be like to take it. */
let paint: v128 = f32x4.splat(0);
let byRidge: v128 = f32x4.splat(0);
let own: v128 = f32x4.splat(0);
let keep: f32 = 1;
let opacity: f32 = 1;

/** Four pixels of four values as four values of each: a column of the square that their vectors make. */
function firstHalves(a: v128, b: v128): v128 {
  return v128.shuffle<f32>(a, b, 0, 4, 1, 5);
}

function secondHalves(a: v128, b: v128): v128 {
  return v128.shuffle<f32>(a, b, 2, 6, 3, 7);
}

function lows(a: v128, b: v128): v128 {
  return v128.shuffle<f32>(a, b, 0, 1, 4, 5);
}

function highs(a: v128, b: v128): v128 {
  return v128.shuffle<f32>(a, b, 2, 3, 6, 7);
}

/** How far from a value of its own colour, squared. */
function unlikeness(value: v128, own: f32): v128 {
  const d = f32x4.sub(value, f32x4.splat(own));
  return f32x4.mul(d, d);
}

/** Lays paint over one value of four pixels. */
function over(under: v128, paint: v128, share: v128): v128 {
  return f32x4.add(under, f32x4.mul(share, f32x4.sub(paint, under)));
}

/** Lays paint over four pixels, as far as `alpha` (by which no more than `FAINT` is nothing), with its ridges. */
function paintFour(canvas: usize, guide: usize, alpha: v128, ridge: v128): void {
  const g0 = v128.load(guide);
  const g1 = v128.load(guide, 16);
  const g2 = v128.load(guide, 32);
  const g3 = v128.load(guide, 48);
  const gLeft = firstHalves(g0, g1);
  const gLeft2 = firstHalves(g2, g3);
  const gRight = secondHalves(g0, g1);
  const gRight2 = secondHalves(g2, g3);
  const kept = f32x4.mul(highs(gRight, gRight2), f32x4.splat(keep));
  const ofL = unlikeness(lows(gLeft, gLeft2), f32x4.extract_lane(own, 0));
  const ofA = unlikeness(highs(gLeft, gLeft2), f32x4.extract_lane(own, 1));
  const ofB = unlikeness(lows(gRight, gRight2), f32x4.extract_lane(own, 2));
  // Both sides of 1 / (1 + (e/k²)²) times k⁴: one division.
  const most = f32x4.mul(kept, kept);
  const square = f32x4.mul(most, most);
  const unlike = f32x4.add(ofL, f32x4.mul(f32x4.splat(4), f32x4.add(ofA, ofB)));
  const seen = f32x4.mul(f32x4.mul(alpha, f32x4.splat(opacity)), square);
  const whole = f32x4.add(square, f32x4.mul(unlike, unlike));
  const share = v128.and(f32x4.div(seen, whole), f32x4.ge(alpha, f32x4.splat(FAINT)));
  const c0 = v128.load(canvas);
  const c1 = v128.load(canvas, 16);
  const c2 = v128.load(canvas, 32);
  const c3 = v128.load(canvas, 48);
  const cLeft = firstHalves(c0, c1);
  const cLeft2 = firstHalves(c2, c3);
  const cRight = secondHalves(c0, c1);
  const cRight2 = secondHalves(c2, c3);
  const lit = f32x4.mul(f32x4.splat(f32x4.extract_lane(byRidge, 0)), ridge);
  const raised = f32x4.mul(f32x4.splat(f32x4.extract_lane(byRidge, 3)), ridge);
  const l = over(lows(cLeft, cLeft2), f32x4.add(f32x4.splat(f32x4.extract_lane(paint, 0)), lit), share);
  const a = over(highs(cLeft, cLeft2), f32x4.splat(f32x4.extract_lane(paint, 1)), share);
  const b = over(lows(cRight, cRight2), f32x4.splat(f32x4.extract_lane(paint, 2)), share);
  const r = over(highs(cRight, cRight2), f32x4.add(f32x4.splat(f32x4.extract_lane(paint, 3)), raised), share);
  const left = firstHalves(l, a);
  const left2 = firstHalves(b, r);
  const right = secondHalves(l, a);
  const right2 = secondHalves(b, r);
  v128.store(canvas, lows(left, left2));
  v128.store(canvas, highs(left, left2), 16);
  v128.store(canvas, lows(right, right2), 32);
  v128.store(canvas, highs(right, right2), 48);
}

/**
 * Paints strokes in their order on a block of a picture, from the pixel `x0`, `y0` up to but without `x1`, `y1`: four interleaved
 * channels (L, a, b, ridge) of `canvas`, masked by likeness to `guide` (L, a, b, and how unlike a pixel may be). An axis that
 * wraps (1 across, 2 down) takes what leaves one side of the picture in at the other. `prints` has `printCount` prints of each
 * level. `field` has room for three boxes of the block of `room` bytes, `table` for the pieces of the longest spine, `marks` for
 * four places of a print, `spans` for two numbers a row. Strokes begin on the picture and are no longer than its sides.
 */
export function paintStrokes(
  canvas: usize,
  guide: usize,
  prints: usize,
  printCount: i32,
  strokes: usize,
  count: i32,
  points: usize,
  width: i32,
  height: i32,
  x0: i32,
  y0: i32,
  x1: i32,
  y1: i32,
  wraps: i32,
  field: usize,
  room: usize,
  table: usize,
  marks: usize,
  spans: usize,
): void {
  const aside = (wraps & 1) !== 0 ? width : 0;
  const below = (wraps & 2) !== 0 ? height : 0;
  for (let n = 0; n < count; n++) {
    const s: usize = strokes + <usize>n * STROKE;
    const spine = points + ((<usize>load<f64>(s)) << 3);
    const length = <i32>load<f64>(s, 8);
    const radius = load<f64>(s, 16);
    let low = Infinity;
    let high = -Infinity;
    let left = Infinity;
    let right = -Infinity;
    for (let i = 0; i < length; i++) {
      const x = load<f64>(spine + ((<usize>(2 * i)) << 3));
      const y = load<f64>(spine + ((<usize>(2 * i + 1)) << 3));
      left = Math.min(left, x);
      right = Math.max(right, x);
      low = Math.min(low, y);
      high = Math.max(high, y);
    }
    const boxLeft = <i32>Math.floor(left - radius - 1);
    const boxRight = <i32>Math.ceil(right + radius + 1);
    const boxTop = <i32>Math.floor(low - radius - 1);
    const boxBottom = <i32>Math.ceil(high + radius + 1);
    let level = 0;
    while (level + 1 < LEVELS && <f64>(ROWS >> (level + 1)) >= PER_PIXEL * 2 * radius) level++;
    paint = f32x4(<f32>load<f64>(s, 32), <f32>load<f64>(s, 40), <f32>load<f64>(s, 48), <f32>load<f64>(s, 56));
    own = f32x4(<f32>load<f64>(s, 64), <f32>load<f64>(s, 72), <f32>load<f64>(s, 80), 0);
    keep = <f32>load<f64>(s, 88);
    opacity = <f32>load<f64>(s, 96);
    byRidge = f32x4(<f32>load<f64>(s, 104), 0, 0, <f32>load<f64>(s, 112));
    let print = prints;
    for (let k = 0; k < level; k++)
      print += (<usize>(printCount * (COLUMNS >> k) * (ROWS >> k))) << SAMPLE_SHIFT;
    print += (<usize>load<f64>(s, 120) * <usize>((COLUMNS >> level) * (ROWS >> level))) << SAMPLE_SHIFT;
    const half = f32x4.splat(<f32>(0.5 * load<f64>(s, 128)));
    const perLength = f32x4.splat(<f32>(COLUMNS >> level) / <f32>load<f64>(s, 24));
    const perRadius = f32x4.splat(<f32>(1 / radius));
    for (let down = -below; down <= below; down += max(below, 1)) {
      const from = max(boxTop + down, y0);
      const to = min(boxBottom + down, y1 - 1);
      if (from > to) continue;
      for (let over = -aside; over <= aside; over += max(aside, 1)) {
        const begin = max(boxLeft + over, x0);
        const end = min(boxRight + over, x1 - 1);
        if (begin > end) continue;
        // Whole vectors a row.
        const across = (end - begin + 4) & ~3;
        enter(spine, length, begin - over, from - down, table);
        measure(table, length - 1, 0, to - from, across, <f32>radius, field, room, spans);
        const corner: usize = (<usize>((from - y0) * (x1 - x0) + begin - x0)) << 4;
        for (let y = 0; y <= to - from; y++) {
          const row = corner + ((<usize>(y * (x1 - x0))) << 4);
          paintRow(
            canvas + row,
            guide + row,
            field + ((<usize>(y * across)) << 2),
            room,
            load<i32>(spans + ((<usize>y) << 3)),
            min(load<i32>(spans + ((<usize>y) << 3), 4), end - begin),
            print,
            level,
            half,
            perLength,
            perRadius,
            marks,
          );
        }
      }
    }
  }
}

/** Paints the pixels `first` to `last` of a row of a stroke's box by what was measured of them. */
function paintRow(
  canvas: usize,
  guide: usize,
  field: usize,
  room: usize,
  first: i32,
  last: i32,
  print: usize,
  level: i32,
  half: v128,
  perLength: v128,
  perRadius: v128,
  marks: usize,
): void {
  const zero = f32x4.splat(0);
  const one = f32x4.splat(1);
  const rows = f32x4.splat(<f32>(ROWS >> level));
  const mostX = f32x4.splat(<f32>(COLUMNS >> level) - 1.001);
  const mostY = f32x4.splat(<f32>(ROWS >> level) - 1.001);
  const rowShift = ROW_SHIFT - level;
  const rowBytes: usize = (<usize>1) << rowShift;
  for (let k = first & ~3; k <= last; k += 4) {
    const place = field + ((<usize>k) << 2);
    const square = v128.load(place);
    const found = f32x4.lt(square, f32x4.splat(FAR));
    if (!v128.any_true(found)) continue;
    const off = f32x4.pmin(one, f32x4.mul(f32x4.sqrt(square), perRadius));
    const side = v128.bitselect(half, f32x4.neg(half), f32x4.gt(v128.load(place + 2 * room), zero));
    const v = f32x4.add(f32x4.splat(0.5), f32x4.mul(off, side));
    const px = f32x4.sub(f32x4.mul(v128.load(place + room), perLength), f32x4.splat(0.5));
    const py = f32x4.sub(f32x4.mul(v, rows), f32x4.splat(0.5));
    const hx = f32x4.pmax(zero, f32x4.pmin(mostX, px));
    const hy = f32x4.pmax(zero, f32x4.pmin(mostY, py));
    const ix = f32x4.floor(hx);
    const iy = f32x4.floor(hy);
    const cell = i32x4.add(
      i32x4.shl(i32x4.trunc_sat_f32x4_s(iy), rowShift),
      i32x4.shl(i32x4.trunc_sat_f32x4_s(ix), SAMPLE_SHIFT),
    );
    v128.store(marks, cell);
    v128.store(marks, f32x4.sub(hx, ix), 16);
    v128.store(marks, f32x4.sub(hy, iy), 32);
    const m0 = printAt(print + <usize>load<i32>(marks), rowBytes, load<f32>(marks, 16), load<f32>(marks, 32));
    const m1 = printAt(
      print + <usize>load<i32>(marks, 4),
      rowBytes,
      load<f32>(marks, 20),
      load<f32>(marks, 36),
    );
    const m2 = printAt(
      print + <usize>load<i32>(marks, 8),
      rowBytes,
      load<f32>(marks, 24),
      load<f32>(marks, 40),
    );
    const m3 = printAt(
      print + <usize>load<i32>(marks, 12),
      rowBytes,
      load<f32>(marks, 28),
      load<f32>(marks, 44),
    );
    const some = firstHalves(m0, m1);
    const others = firstHalves(m2, m3);
    const isInside = f32x4.le(f32x4.add(f32x4.splat(<f32>k), f32x4(0, 1, 2, 3)), f32x4.splat(<f32>last));
    const alpha = v128.and(lows(some, others), v128.and(found, isInside));
    const at: usize = (<usize>k) << 4;
    paintFour(canvas + at, guide + at, alpha, highs(some, others));
  }
}
