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
