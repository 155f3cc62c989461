/** Four lines go through the recursion side by side, in 64-bit floats: its poles lie close to 1. */
const LINES: i32 = 4;
const WIDE: usize = 32;

/** The recursion over `length` steps of four lines, in place, from `at` on by `step` bytes; it starts from what stands there. */
function pass(
  at: usize,
  step: isize,
  length: i32,
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
  let p1 = v128.load(at);
  let q1 = v128.load(at + 16);
  let p2 = p1;
  let p3 = p1;
  let p4 = p1;
  let q2 = q1;
  let q3 = q1;
  let q4 = q1;
  for (let k = 0; k < length; k++) {
    // What hangs on the last value comes last, so that only that is waited for.
    const p0 = f64x2.add(f64x2.mul(g, v128.load(at)), f64x2.mul(b2, p2));
    const q0 = f64x2.add(f64x2.mul(g, v128.load(at + 16)), f64x2.mul(b2, q2));
    const p = f64x2.add(f64x2.add(p0, f64x2.add(f64x2.mul(b3, p3), f64x2.mul(b4, p4))), f64x2.mul(b1, p1));
    const q = f64x2.add(f64x2.add(q0, f64x2.add(f64x2.mul(b3, q3), f64x2.mul(b4, q4))), f64x2.mul(b1, q1));
    v128.store(at, p);
    v128.store(at + 16, q);
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
}

/** The recursion over a buffer of `length` steps of four lines, forward and back, in place. */
function recurse(
  buffer: usize,
  length: i32,
  gain: f64,
  feedback1: f64,
  feedback2: f64,
  feedback3: f64,
  feedback4: f64,
): void {
  pass(buffer, WIDE, length, gain, feedback1, feedback2, feedback3, feedback4);
  const end = buffer + <usize>(length - 1) * WIDE;
  pass(end, -(<isize>WIDE), length, gain, feedback1, feedback2, feedback3, feedback4);
}

/**
 * Gaussian by the fourth-order recursion (van Vliet, Young & Verbeek 1998). `source` becomes the result; `middle` is a plane
 * to work in. `columns` and `rows` are the edge tables with `pad` entries beyond each edge, `buffer` has room for
 * `columns` times four and `rows` times sixteen 64-bit floats. Both sides are at least four.
 */
export function gaussianRecursive(
  source: usize,
  middle: usize,
  width: i32,
  height: i32,
  columns: usize,
  rows: usize,
  pad: i32,
  buffer: usize,
  gain: f64,
  feedback1: f64,
  feedback2: f64,
  feedback3: f64,
  feedback4: f64,
): void {
  const bytes: usize = (<usize>width) << 2;
  const across = width + 2 * pad;
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
    recurse(buffer, across, gain, feedback1, feedback2, feedback3, feedback4);
    const m0 = middle + <usize>y * bytes;
    const m1 = m0 + bytes;
    const m2 = m1 + bytes;
    const m3 = m2 + bytes;
    for (let k = 0; k < width; k++) {
      const x: usize = (<usize>k) << 2;
      const at = buffer + <usize>(k + pad) * WIDE;
      store<f32>(m0 + x, <f32>load<f64>(at));
      store<f32>(m1 + x, <f32>load<f64>(at + 8));
      store<f32>(m2 + x, <f32>load<f64>(at + 16));
      store<f32>(m3 + x, <f32>load<f64>(at + 24));
    }
  }
  const down = height + 2 * pad;
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
      recurse(buffer + <usize>group * apart, down, gain, feedback1, feedback2, feedback3, feedback4);
    for (let k = 0; k < height; k++) {
      let at = buffer + <usize>(k + pad) * WIDE;
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
