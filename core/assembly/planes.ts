import { exp4, log2x4 } from './curves';

/**
 * `base` and each of `count` planes by its weight, held to `low`…`high`. Planes lie one
 * after the other, `bytes` apart, a whole number of vectors.
 */
export function sumPlanes(
  planes: usize,
  bytes: usize,
  count: i32,
  weights: usize,
  out: usize,
  base: f32,
  low: f32,
  high: f32,
): void {
  const least = f32x4.splat(low);
  const most = f32x4.splat(high);
  for (let at: usize = 0; at < bytes; at += 16) {
    let sum = f32x4.splat(base);
    let plane = planes + at;
    for (let k = 0; k < count; k++) {
      sum = f32x4.add(sum, f32x4.mul(v128.load(plane), v128.load32_splat(weights + ((<usize>k) << 2))));
      plane += bytes;
    }
    v128.store(out + at, f32x4.pmin(f32x4.pmax(sum, least), most));
  }
}

/** A plane brought up to another where that is higher, in place; `bytes` of each. */
export function raisePlane(plane: usize, other: usize, bytes: usize): void {
  for (let at: usize = 0; at < bytes; at += 16)
    v128.store(plane + at, f32x4.pmax(v128.load(plane + at), v128.load(other + at)));
}

/** Natural logarithms of values (below 0 they count as 0) and a floor above 0, in place. */
export function logPlane(plane: usize, bytes: usize, floor: f32): void {
  for (let at = plane; at < plane + bytes; at += 16) {
    const value = f32x4.add(f32x4.pmax(f32x4.splat(0), v128.load(at)), f32x4.splat(floor));
    v128.store(at, f32x4.mul(log2x4(value), f32x4.splat(<f32>Math.LN2)));
  }
}

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
