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

/** The recursion over `length` steps of four lines from `at` on by `step` bytes, in place unless it only warms up. */
function pass(
  at: usize,
  step: isize,
  length: i32,
  state: usize,
  keeps: bool,
  gain: f64,
  feedback1: f64,
  feedback2: f64,
  feedback3: f64,
  feedback4: f64,
): void {
  const g = f64x2.splat(gain);
  const b1 = f64x2.splat(feedback1);
  const b2 = f64x2.splat(feedback2);
  const b3 = f64x2.splat(feedback3);
  const b4 = f64x2.splat(feedback4);
  let p1 = v128.load(state);
  let q1 = v128.load(state, 16);
  let p2 = v128.load(state, 32);
  let q2 = v128.load(state, 48);
  let p3 = v128.load(state, 64);
  let q3 = v128.load(state, 80);
  let p4 = v128.load(state, 96);
  let q4 = v128.load(state, 112);
  for (let k = 0; k < length; k++) {
    // What hangs on the last value comes last, so that only that is waited for.
    const p0 = f64x2.add(f64x2.mul(g, v128.load(at)), f64x2.mul(b2, p2));
    const q0 = f64x2.add(f64x2.mul(g, v128.load(at + 16)), f64x2.mul(b2, q2));
    const p = f64x2.add(f64x2.add(p0, f64x2.add(f64x2.mul(b3, p3), f64x2.mul(b4, p4))), f64x2.mul(b1, p1));
    const q = f64x2.add(f64x2.add(q0, f64x2.add(f64x2.mul(b3, q3), f64x2.mul(b4, q4))), f64x2.mul(b1, q1));
    if (keeps) {
      v128.store(at, p);
      v128.store(at + 16, q);
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

/** From what one round has made of a start at `start` to what all rounds before would have, by the matrix at `settle`. */
function settled(start: usize, state: usize, settle: usize): void {
  for (let half: usize = 0; half < 32; half += 16) {
    const from = v128.load(start + half);
    const d0 = f64x2.sub(v128.load(state + half), from);
    const d1 = f64x2.sub(v128.load(state + half, 32), from);
    const d2 = f64x2.sub(v128.load(state + half, 64), from);
    const d3 = f64x2.sub(v128.load(state + half, 96), from);
    for (let i: usize = 0; i < 4; i++) {
      const row = settle + (i << 5);
      const sum = f64x2.add(
        f64x2.add(f64x2.mul(v128.load64_splat(row), d0), f64x2.mul(v128.load64_splat(row, 8), d1)),
        f64x2.add(f64x2.mul(v128.load64_splat(row, 16), d2), f64x2.mul(v128.load64_splat(row, 24), d3)),
      );
      v128.store(state + half + (i << 5), f64x2.add(from, sum));
    }
  }
}

/**
 * The recursion over a buffer of `length` steps of four lines, forward and back, in place. A line that goes round is warmed up
 * on `warmUp` of its own steps, and settled where that is all of them; any other begins with what stands at its ends.
 */
function recurse(
  buffer: usize,
  length: i32,
  warmUp: i32,
  settle: usize,
  state: usize,
  gain: f64,
  feedback1: f64,
  feedback2: f64,
  feedback3: f64,
  feedback4: f64,
): void {
  const end = buffer + <usize>(length - 1) * WIDE;
  for (let back = 0; back < 2; back++) {
    const first = back ? end : buffer;
    const step = back ? -(<isize>WIDE) : <isize>WIDE;
    const warm = buffer + <usize>(back ? warmUp - 1 : length - warmUp) * WIDE;
    begin(warmUp > 0 ? warm : first, state);
    if (warmUp > 0) pass(warm, step, warmUp, state, false, gain, feedback1, feedback2, feedback3, feedback4);
    if (settle) settled(warm, state, settle);
    pass(first, step, length, state, true, gain, feedback1, feedback2, feedback3, feedback4);
  }
}

/**
 * Gaussian by the fourth-order recursion (van Vliet, Young & Verbeek 1998). `source` becomes the result; `middle` is a plane
 * to work in, the same one where both sides are whole groups of lines. `columns` and `rows` say which samples of a line are taken, its own from `beforeX` and `beforeY` on; `buffer` has
 * room for `across` times four and `down` times sixteen 64-bit floats, `state` for what the recursion holds. Both sides are at
 * least four.
 */
export function gaussianRecursive(
  source: usize,
  middle: usize,
  width: i32,
  height: i32,
  columns: usize,
  across: i32,
  beforeX: i32,
  warmUpX: i32,
  settleX: usize,
  rows: usize,
  down: i32,
  beforeY: i32,
  warmUpY: i32,
  settleY: usize,
  buffer: usize,
  state: usize,
  gain: f64,
  feedback1: f64,
  feedback2: f64,
  feedback3: f64,
  feedback4: f64,
): void {
  const bytes: usize = (<usize>width) << 2;
  for (let top = 0; top < height; top += LINES) {
    // The last four may overlap those before: what is read is not what is written.
    const y = min(top, height - LINES);
    const r0 = source + <usize>y * bytes;
    const r1 = r0 + bytes;
    const r2 = r1 + bytes;
    const r3 = r2 + bytes;
    for (let k = 0; k < across; k++) {
      const x: usize = (<usize>load<i32>(columns + ((<usize>k) << 2))) << 2;
      const at = buffer + <usize>k * WIDE;
      store<f64>(at, <f64>load<f32>(r0 + x));
      store<f64>(at + 8, <f64>load<f32>(r1 + x));
      store<f64>(at + 16, <f64>load<f32>(r2 + x));
      store<f64>(at + 24, <f64>load<f32>(r3 + x));
    }
    recurse(buffer, across, warmUpX, settleX, state, gain, feedback1, feedback2, feedback3, feedback4);
    const m0 = middle + <usize>y * bytes;
    const m1 = m0 + bytes;
    const m2 = m1 + bytes;
    const m3 = m2 + bytes;
    for (let k = 0; k < width; k++) {
      const x: usize = (<usize>k) << 2;
      const at = buffer + <usize>(k + beforeX) * WIDE;
      store<f32>(m0 + x, <f32>load<f64>(at));
      store<f32>(m1 + x, <f32>load<f64>(at + 8));
      store<f32>(m2 + x, <f32>load<f64>(at + 16));
      store<f32>(m3 + x, <f32>load<f64>(at + 24));
    }
  }
  // A whole line of the cache of each row at once, where the plane is as wide.
  const groups = width >= 4 * LINES ? 4 : 1;
  const apart = <usize>down * WIDE;
  for (let left = 0; left < width; left += groups * LINES) {
    const x: usize = (<usize>min(left, width - groups * LINES)) << 2;
    for (let k = 0; k < down; k++) {
      const row = <usize>load<i32>(rows + ((<usize>k) << 2));
      let from = middle + row * bytes + x;
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
      recurse(
        buffer + <usize>group * apart,
        down,
        warmUpY,
        settleY,
        state,
        gain,
        feedback1,
        feedback2,
        feedback3,
        feedback4,
      );
    for (let k = 0; k < height; k++) {
      let at = buffer + <usize>(k + beforeY) * WIDE;
      let to = source + <usize>k * bytes + x;
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
