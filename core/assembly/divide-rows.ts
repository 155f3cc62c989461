import { exp4 } from './curves';

/**
 * Rows of `width` values divided by e to the power of a light that is quadratic along each: `terms` holds for each row what
 * does not change along it, what does with u and what with u²; u is `start` at the row's first value, and `step` is added for
 * each next one. `shade`, a logarithm at every place, is divided out too, where it is not 0.
 */
export function divideRows(
  from: usize,
  out: usize,
  width: i32,
  rows: i32,
  terms: usize,
  start: f32,
  step: f32,
  shade: usize,
): void {
  const steps = f32x4.mul(f32x4(0, 1, 2, 3), f32x4.splat(step));
  for (let y = 0; y < rows; y++) {
    const term = terms + <usize>(12 * y);
    const level = v128.load32_splat(term);
    const slope = v128.load32_splat(term, 4);
    const bow = v128.load32_splat(term, 8);
    for (let x = 0; x < width; x += 4) {
      const at = (<usize>(y * width + x)) << 2;
      const u = f32x4.add(f32x4.splat(start + step * <f32>x), steps);
      let log = f32x4.add(level, f32x4.mul(u, f32x4.add(slope, f32x4.mul(bow, u))));
      if (shade !== 0) log = f32x4.add(log, v128.load(shade + at));
      v128.store(out + at, f32x4.mul(v128.load(from + at), exp4(f32x4.neg(log))));
    }
  }
}
