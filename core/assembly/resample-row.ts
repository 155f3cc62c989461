/** Sub-pixel places for which there are weights. */
const PHASES: f64 = 4096;

/** Taps of a kernel that is not stretched, in whole vectors. */
const EIGHT: i32 = 8;

/** How far the samples from `at` on lie from `base`, weighed along and down. */
function weighed(at: usize, stride: usize, wx: usize, wy: usize, rows: i32, bytes: usize, base: f32): v128 {
  const all = f32x4.splat(base);
  let sum = f32x4.splat(0);
  for (let j = 0; j < rows; j++) {
    let line = f32x4.mul(f32x4.sub(v128.load(at), all), v128.load(wx));
    for (let k: usize = 16; k < bytes; k += 16)
      line = f32x4.add(line, f32x4.mul(f32x4.sub(v128.load(at + k), all), v128.load(wx + k)));
    sum = f32x4.add(sum, f32x4.mul(line, v128.load32_splat(wy + ((<usize>j) << 2))));
    at += stride;
  }
  return sum;
}

/** The same of two vectors a row, with their weights held. */
function weighedEight(at: usize, stride: usize, wx: usize, wy: usize, rows: i32, base: f32): v128 {
  const all = f32x4.splat(base);
  const near = v128.load(wx);
  const far = v128.load(wx, 16);
  let sum = f32x4.splat(0);
  const end = wy + ((<usize>rows) << 2);
  for (; wy < end; wy += 4) {
    const line = f32x4.add(
      f32x4.mul(f32x4.sub(v128.load(at), all), near),
      f32x4.mul(f32x4.sub(v128.load(at, 16), all), far),
    );
    sum = f32x4.add(sum, f32x4.mul(line, v128.load32_splat(wy)));
    at += stride;
  }
  return sum;
}

/**
 * One row of output pixels at places (`xs`, `ys`, 64-bit floats), for planes that lie one after the other from `source` on,
 * `planeBytes` apart; results go to `out`, `outBytes` apart. `weights` holds `taps` (a multiple of four) for each phase, of
 * which `rows` count downwards; those of a phase sum to 1. What is weighed is how far each sample lies from the first, so
 * that what is constant stays so to the bit. What reaches beyond the picture is left; gives how many pixels that were.
 */
export function resampleRow(
  source: usize,
  planeBytes: usize,
  planes: i32,
  width: i32,
  height: i32,
  out: usize,
  outBytes: usize,
  count: i32,
  xs: usize,
  ys: usize,
  weights: usize,
  taps: i32,
  rows: i32,
  before: i32,
): i32 {
  let left = 0;
  const stride: usize = (<usize>width) << 2;
  const bytes: usize = (<usize>taps) << 2;
  for (let x = 0; x < count; x++) {
    const px = load<f64>(xs + ((<usize>x) << 3));
    const py = load<f64>(ys + ((<usize>x) << 3));
    const fx = Math.floor(px);
    const fy = Math.floor(py);
    const x0 = <i32>fx - before;
    const y0 = <i32>fy - before;
    if (x0 < 0 || y0 < 0 || x0 + rows > width || y0 + rows > height) {
      left++;
      continue;
    }
    const wx = weights + <usize>(<i32>Math.floor((px - fx) * PHASES)) * bytes;
    const wy = weights + <usize>(<i32>Math.floor((py - fy) * PHASES)) * bytes;
    const first = source + <usize>y0 * stride + ((<usize>x0) << 2);
    for (let c = 0; c < planes; c++) {
      const at = first + <usize>c * planeBytes;
      const base = load<f32>(at);
      const sum =
        taps === EIGHT
          ? weighedEight(at, stride, wx, wy, rows, base)
          : weighed(at, stride, wx, wy, rows, bytes, base);
      const pairs = f32x4.add(sum, v128.shuffle<i32>(sum, sum, 2, 3, 0, 1));
      store<f32>(
        out + <usize>c * outBytes + ((<usize>x) << 2),
        base + f32x4.extract_lane(pairs, 0) + f32x4.extract_lane(pairs, 1),
      );
    }
  }
  return left;
}
