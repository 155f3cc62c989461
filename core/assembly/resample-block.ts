/** Sub-pixel places for which there are weights. */
const PHASES: f64 = 4096;

/** The sums of the lanes of four vectors. */
function sums(a: v128, b: v128, c: v128, d: v128): v128 {
  const ab = f32x4.add(v128.shuffle<i32>(a, b, 0, 4, 1, 5), v128.shuffle<i32>(a, b, 2, 6, 3, 7));
  const cd = f32x4.add(v128.shuffle<i32>(c, d, 0, 4, 1, 5), v128.shuffle<i32>(c, d, 2, 6, 3, 7));
  return f32x4.add(v128.shuffle<i32>(ab, cd, 0, 1, 4, 5), v128.shuffle<i32>(ab, cd, 2, 3, 6, 7));
}

/**
 * First pass: for each of `rows` rows of up to four planes, `planeBytes` apart and `width` columns wide, `count` values at
 * `from` + `step`·(`u` + k) + `lean`·(`r` + row), less `left`; the planes of each side by side in one vector of `to`. What is
 * weighed is how far each sample lies from the first, so that what is constant stays so to the bit.
 */
export function resampleAlong(
  source: usize,
  planeBytes: usize,
  planes: i32,
  width: i32,
  rows: i32,
  to: usize,
  count: i32,
  from: f64,
  step: f64,
  lean: f64,
  u: i32,
  r: i32,
  left: i32,
  weights: usize,
  taps: i32,
): void {
  const bytes: usize = (<usize>taps) << 2;
  const none = f32x4.splat(0);
  const second = planes > 1 ? planeBytes : 0;
  const third = planes > 2 ? 2 * planeBytes : 0;
  const fourth = planes > 3 ? 3 * planeBytes : 0;
  for (let row = 0; row < rows; row++) {
    const line = source + <usize>(row * width) * 4;
    const shifted = lean * <f64>(r + row);
    for (let k = 0; k < count; k++) {
      const x = from + step * <f64>(u + k) + shifted;
      const fx = Math.floor(x);
      const w = weights + <usize>(<i32>((x - fx) * PHASES)) * bytes;
      const at = line + ((<usize>(<i32>fx - left)) << 2);
      const baseA = v128.load32_splat(at);
      let a = none;
      let b = none;
      let c = none;
      let d = none;
      if (planes === 1) {
        for (let k: usize = 0; k < bytes; k += 16)
          a = f32x4.add(a, f32x4.mul(f32x4.sub(v128.load(at + k), baseA), v128.load(w + k)));
        v128.store(to, f32x4.add(baseA, sums(a, b, c, d)));
      } else {
        const baseB = v128.load32_splat(at + second);
        const baseC = v128.load32_splat(at + third);
        const baseD = v128.load32_splat(at + fourth);
        for (let k: usize = 0; k < bytes; k += 16) {
          const here = at + k;
          const by = v128.load(w + k);
          a = f32x4.add(a, f32x4.mul(f32x4.sub(v128.load(here), baseA), by));
          b = f32x4.add(b, f32x4.mul(f32x4.sub(v128.load(here + second), baseB), by));
          c = f32x4.add(c, f32x4.mul(f32x4.sub(v128.load(here + third), baseC), by));
          if (planes > 3) d = f32x4.add(d, f32x4.mul(f32x4.sub(v128.load(here + fourth), baseD), by));
        }
        const base = v128.shuffle<i32>(
          v128.shuffle<i32>(baseA, baseB, 0, 4, 0, 4),
          v128.shuffle<i32>(baseC, baseD, 0, 4, 0, 4),
          0,
          1,
          4,
          5,
        );
        v128.store(to, f32x4.add(base, sums(a, b, c, d)));
      }
      to += 16;
    }
  }
}

/**
 * Second pass: `rows` rows of `count` values (a multiple of four) at `from` + `right`·(`u` + k) + `down`·(`v` + row), less
 * `top`, taken down the columns of what the first pass left at `middle`; each plane of them goes to `out`, `outBytes` apart, its
 * rows `outStride` bytes apart. `taps` of the `inFours` weights of a phase count.
 */
export function resampleDown(
  middle: usize,
  count: i32,
  rows: i32,
  planes: i32,
  out: usize,
  outBytes: usize,
  outStride: usize,
  from: f64,
  right: f64,
  down: f64,
  u: i32,
  v: i32,
  top: i32,
  weights: usize,
  taps: i32,
  inFours: i32,
): void {
  const stride: usize = (<usize>count) << 4;
  const bytes: usize = (<usize>inFours) << 2;
  for (let row = 0; row < rows; row++) {
    let to = out + <usize>row * outStride;
    for (let k = 0; k < count; k += 4) {
      let r0 = f32x4.splat(0);
      let r1 = r0;
      let r2 = r0;
      let r3 = r0;
      for (let j = 0; j < 4; j++) {
        const y = from + right * <f64>(u + k + j) + down * <f64>(v + row);
        const fy = Math.floor(y);
        const w = weights + <usize>(<i32>((y - fy) * PHASES)) * bytes;
        let at = middle + <usize>(<i32>fy - top) * stride + ((<usize>(k + j)) << 4);
        const base = v128.load(at);
        let value = base;
        for (let n = 0; n < taps; n++) {
          const by = v128.load32_splat(w + ((<usize>n) << 2));
          value = f32x4.add(value, f32x4.mul(f32x4.sub(v128.load(at), base), by));
          at += stride;
        }
        if (j === 0) r0 = value;
        else if (j === 1) r1 = value;
        else if (j === 2) r2 = value;
        else r3 = value;
      }
      const a = v128.shuffle<i32>(r0, r1, 0, 4, 1, 5);
      const b = v128.shuffle<i32>(r2, r3, 0, 4, 1, 5);
      v128.store(to, v128.shuffle<i32>(a, b, 0, 1, 4, 5));
      if (planes > 1) {
        v128.store(to + outBytes, v128.shuffle<i32>(a, b, 2, 3, 6, 7));
        const c = v128.shuffle<i32>(r0, r1, 2, 6, 3, 7);
        const d = v128.shuffle<i32>(r2, r3, 2, 6, 3, 7);
        v128.store(to + 2 * outBytes, v128.shuffle<i32>(c, d, 0, 1, 4, 5));
        v128.store(to + 3 * outBytes, v128.shuffle<i32>(c, d, 2, 3, 6, 7));
      }
      to += 16;
    }
  }
}
