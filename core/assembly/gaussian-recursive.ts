/** Four lines go through the recursion side by side, in 64-bit floats: its poles lie close to 1. */
const LINES: i32 = 4;
const WIDE: usize = 32;

/** What the recursion holds of four lines: their last four values. */
const STATE: usize = 128;

/** The recursion begun with what stands at `at`, as if it had always stood there. */
function begin(at: usize, state: usize): void {
  for (let k: usize = 0; k < STATE; k += 32) {
    v128.store(state + k, v128.load(at));
    v128.store(state + k, v128.load(at + 16), 16);
  }
}

/** The next value of two lines: what depends on the last one comes last, so that only that is waited for. */
function next(
  v: v128,
  g: v128,
  b1: v128,
  b2: v128,
  b3: v128,
  b4: v128,
  y1: v128,
  y2: v128,
  y3: v128,
  y4: v128,
): v128 {
  const before = f64x2.add(
    f64x2.add(f64x2.mul(g, v), f64x2.mul(b2, y2)),
    f64x2.add(f64x2.mul(b3, y3), f64x2.mul(b4, y4)),
  );
  return f64x2.add(before, f64x2.mul(b1, y1));
}

/**
 * The recursion over `length` steps of four lines from `at` on by `step` bytes, in place unless it only warms up. Four steps are
 * written out, after which each of the last values has its place again. `by` holds the gain and four feedbacks.
 */
function pass(at: usize, step: isize, length: i32, state: usize, keeps: bool, by: usize): void {
  const g = v128.load64_splat(by);
  const b1 = v128.load64_splat(by, 8);
  const b2 = v128.load64_splat(by, 16);
  const b3 = v128.load64_splat(by, 24);
  const b4 = v128.load64_splat(by, 32);
  let p1 = v128.load(state);
  let q1 = v128.load(state, 16);
  let p2 = v128.load(state, 32);
  let q2 = v128.load(state, 48);
  let p3 = v128.load(state, 64);
  let q3 = v128.load(state, 80);
  let p4 = v128.load(state, 96);
  let q4 = v128.load(state, 112);
  let left = length;
  if (keeps) {
    for (; left >= 4; left -= 4) {
      p4 = next(v128.load(at), g, b1, b2, b3, b4, p1, p2, p3, p4);
      q4 = next(v128.load(at, 16), g, b1, b2, b3, b4, q1, q2, q3, q4);
      v128.store(at, p4);
      v128.store(at, q4, 16);
      at += step;
      p3 = next(v128.load(at), g, b1, b2, b3, b4, p4, p1, p2, p3);
      q3 = next(v128.load(at, 16), g, b1, b2, b3, b4, q4, q1, q2, q3);
      v128.store(at, p3);
      v128.store(at, q3, 16);
      at += step;
      p2 = next(v128.load(at), g, b1, b2, b3, b4, p3, p4, p1, p2);
      q2 = next(v128.load(at, 16), g, b1, b2, b3, b4, q3, q4, q1, q2);
      v128.store(at, p2);
      v128.store(at, q2, 16);
      at += step;
      p1 = next(v128.load(at), g, b1, b2, b3, b4, p2, p3, p4, p1);
      q1 = next(v128.load(at, 16), g, b1, b2, b3, b4, q2, q3, q4, q1);
      v128.store(at, p1);
      v128.store(at, q1, 16);
      at += step;
    }
  }
  for (; left > 0; left--) {
    const p = next(v128.load(at), g, b1, b2, b3, b4, p1, p2, p3, p4);
    const q = next(v128.load(at, 16), g, b1, b2, b3, b4, q1, q2, q3, q4);
    if (keeps) {
      v128.store(at, p);
      v128.store(at, q, 16);
    }
    p4 = p3;
    p3 = p2;
    p2 = p1;
    p1 = p;
    q4 = q3;
    q3 = q2;
    q2 = q1;
    q1 = q;
    at += step;
  }
  v128.store(state, p1);
  v128.store(state, q1, 16);
  v128.store(state, p2, 32);
  v128.store(state, q2, 48);
  v128.store(state, p3, 64);
  v128.store(state, q3, 80);
  v128.store(state, p4, 96);
  v128.store(state, q4, 112);
}

/**
 * The recursion over a buffer of `length` steps of four lines, forward and back, in place. A line that goes round is warmed up
 * on `warmUp` steps of itself, round after round; any other begins with what stands at its ends.
 */
function recurse(buffer: usize, length: i32, warmUp: i32, state: usize, by: usize): void {
  const end = buffer + <usize>(length - 1) * WIDE;
  for (let back = 0; back < 2; back++) {
    const first = back ? end : buffer;
    const step = back ? -(<isize>WIDE) : <isize>WIDE;
    // What is left over of whole rounds comes first.
    let count = warmUp % length;
    if (count === 0) count = min(warmUp, length);
    begin(count > 0 ? buffer + <usize>(back ? count - 1 : length - count) * WIDE : first, state);
    for (let left = warmUp; left > 0; left -= count, count = length) {
      pass(buffer + <usize>(back ? count - 1 : length - count) * WIDE, step, count, state, false, by);
    }
    pass(first, step, length, state, true, by);
  }
}

/** A sample of each of four rows that lie `bytes` apart, by the table, to its place in the buffer. */
function sample(row: usize, bytes: usize, columns: usize, k: i32, buffer: usize): void {
  const from = row + ((<usize>load<i32>(columns + ((<usize>k) << 2))) << 2);
  const at = buffer + <usize>k * WIDE;
  for (let line: usize = 0; line < 4; line++)
    store<f64>(at + (line << 3), <f64>load<f32>(from + line * bytes));
}

/** Four values of each of four rows, from `row` on, into four places of the buffer. */
function turnIn(row: usize, bytes: usize, at: usize): void {
  const r0 = v128.load(row);
  const r1 = v128.load(row + bytes);
  const r2 = v128.load(row + 2 * bytes);
  const r3 = v128.load(row + 3 * bytes);
  const a = v128.shuffle<i32>(r0, r1, 0, 4, 1, 5);
  const b = v128.shuffle<i32>(r2, r3, 0, 4, 1, 5);
  const c = v128.shuffle<i32>(r0, r1, 2, 6, 3, 7);
  const d = v128.shuffle<i32>(r2, r3, 2, 6, 3, 7);
  v128.store(at, f64x2.promote_low_f32x4(a));
  v128.store(at, f64x2.promote_low_f32x4(b), 16);
  v128.store(at, f64x2.promote_low_f32x4(v128.shuffle<i32>(a, a, 2, 3, 0, 1)), 32);
  v128.store(at, f64x2.promote_low_f32x4(v128.shuffle<i32>(b, b, 2, 3, 0, 1)), 48);
  v128.store(at, f64x2.promote_low_f32x4(c), 64);
  v128.store(at, f64x2.promote_low_f32x4(d), 80);
  v128.store(at, f64x2.promote_low_f32x4(v128.shuffle<i32>(c, c, 2, 3, 0, 1)), 96);
  v128.store(at, f64x2.promote_low_f32x4(v128.shuffle<i32>(d, d, 2, 3, 0, 1)), 112);
}

/** Four places of the buffer back into four values of each of four rows. */
function turnOut(at: usize, row: usize, bytes: usize): void {
  for (let half: usize = 0; half < 32; half += 16) {
    const v0 = f32x4.demote_f64x2_zero(v128.load(at + half));
    const v1 = f32x4.demote_f64x2_zero(v128.load(at + half, 32));
    const v2 = f32x4.demote_f64x2_zero(v128.load(at + half, 64));
    const v3 = f32x4.demote_f64x2_zero(v128.load(at + half, 96));
    const a = v128.shuffle<i32>(v0, v1, 0, 4, 1, 5);
    const b = v128.shuffle<i32>(v2, v3, 0, 4, 1, 5);
    const to = row + (half >> 3) * bytes;
    v128.store(to, v128.shuffle<i32>(a, b, 0, 1, 4, 5));
    v128.store(to + bytes, v128.shuffle<i32>(a, b, 2, 3, 6, 7));
  }
}

/**
 * Rows through the fourth-order recursion (van Vliet, Young & Verbeek 1998), from `source` to `target`. `columns` says which
 * samples of a row are taken, its own from `before` on; `buffer` has room for `across` times four 64-bit floats, `state` for
 * what the recursion holds, `by` its gain and four feedbacks. There are at least four rows.
 */
export function recursiveRows(
  source: usize,
  target: usize,
  width: i32,
  rows: i32,
  columns: usize,
  across: i32,
  before: i32,
  warmUp: i32,
  buffer: usize,
  state: usize,
  by: usize,
): void {
  const bytes: usize = (<usize>width) << 2;
  for (let top = 0; top < rows; top += LINES) {
    // The last four may overlap those before: what is read is not what is written.
    const y = <usize>min(top, rows - LINES);
    const r0 = source + y * bytes;
    for (let k = 0; k < before; k++) sample(r0, bytes, columns, k, buffer);
    for (let k = before + width; k < across; k++) sample(r0, bytes, columns, k, buffer);
    const own = buffer + <usize>before * WIDE;
    let x = 0;
    for (; x + LINES <= width; x += LINES) turnIn(r0 + ((<usize>x) << 2), bytes, own + <usize>x * WIDE);
    for (; x < width; x++) sample(r0, bytes, columns, before + x, buffer);
    recurse(buffer, across, warmUp, state, by);
    const m0 = target + y * bytes;
    for (x = 0; x + LINES <= width; x += LINES) turnOut(own + <usize>x * WIDE, m0 + ((<usize>x) << 2), bytes);
    for (; x < width; x++) {
      const at = own + <usize>x * WIDE;
      for (let line: usize = 0; line < 4; line++)
        store<f32>(m0 + line * bytes + ((<usize>x) << 2), <f32>load<f64>(at + (line << 3)));
    }
  }
}

/**
 * Columns of a strip through the same recursion, from `source` to `target`. `rows` says which samples of a column are taken,
 * its own from `before` on; `buffer` has room for `down` times sixteen 64-bit floats. There are at least four columns.
 */
export function recursiveColumns(
  source: usize,
  target: usize,
  width: i32,
  height: i32,
  rows: usize,
  down: i32,
  before: i32,
  warmUp: i32,
  buffer: usize,
  state: usize,
  by: usize,
): void {
  const bytes: usize = (<usize>width) << 2;
  // A whole line of the cache of each row at once, where the strip is as wide.
  const groups = width >= 4 * LINES ? 4 : 1;
  const apart = <usize>down * WIDE;
  for (let left = 0; left < width; left += groups * LINES) {
    const x: usize = (<usize>min(left, width - groups * LINES)) << 2;
    for (let k = 0; k < down; k++) {
      const row = <usize>load<i32>(rows + ((<usize>k) << 2));
      let from = source + row * bytes + x;
      let at = buffer + <usize>k * WIDE;
      for (let group = 0; group < groups; group++) {
        const four = v128.load(from);
        v128.store(at, f64x2.promote_low_f32x4(four));
        v128.store(at + 16, f64x2.promote_low_f32x4(v128.shuffle<i32>(four, four, 2, 3, 0, 1)));
        from += 16;
        at += apart;
      }
    }
    for (let group = 0; group < groups; group++)
      recurse(buffer + <usize>group * apart, down, warmUp, state, by);
    for (let k = 0; k < height; k++) {
      let at = buffer + <usize>(k + before) * WIDE;
      let to = target + <usize>k * bytes + x;
      for (let group = 0; group < groups; group++) {
        const low = f32x4.demote_f64x2_zero(v128.load(at));
        const high = f32x4.demote_f64x2_zero(v128.load(at + 16));
        v128.store(to, v128.shuffle<i32>(low, high, 0, 1, 4, 5));
        to += 16;
        at += apart;
      }
    }
  }
}
