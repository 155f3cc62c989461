/**
 * How far `count` values (a multiple of four) lie from others, times a weight, over what is usual: the median of that, to one
 * of `bins` bins of its range, and `floor`. `valid` of them count; `counts` has room for the bins. The result takes the place
 * of `plane`.
 */
export function standOut(
  plane: usize,
  other: usize,
  count: i32,
  valid: i32,
  weight: f32,
  floor: f64,
  counts: usize,
  bins: i32,
): void {
  const by = f32x4.splat(weight);
  const end = plane + ((<usize>count) << 2);
  const last = plane + ((<usize>valid) << 2);
  const apart = other - plane;
  for (let at = plane; at < end; at += 16)
    v128.store(at, f32x4.abs(f32x4.mul(by, f32x4.sub(v128.load(at), v128.load(at + apart)))));
  let low = load<f32>(plane);
  let high = low;
  for (let at = plane; at < last; at += 4) {
    const value = load<f32>(at);
    low = min<f32>(low, value);
    high = max<f32>(high, value);
  }
  let usual = <f64>low;
  if (high > low) {
    memory.fill(counts, 0, (<usize>bins) << 2);
    const scale = <f64>bins / (<f64>high - <f64>low);
    for (let at = plane; at < last; at += 4) {
      const bin = min(bins - 1, <i32>((<f64>load<f32>(at) - <f64>low) * scale));
      const to = counts + ((<usize>bin) << 2);
      store<i32>(to, load<i32>(to) + 1);
    }
    const wanted = <f64>valid / 2;
    let below: f64 = 0;
    for (let bin = 0; bin < bins; bin++) {
      const here = <f64>load<i32>(counts + ((<usize>bin) << 2));
      if (below + here >= wanted && here > 0) {
        usual += ((<f64>high - <f64>low) / <f64>bins) * (<f64>bin + (wanted - below) / here);
        break;
      }
      below += here;
    }
  }
  const over = f32x4.splat(<f32>(1 / (usual + floor)));
  for (let at = plane; at < end; at += 16) v128.store(at, f32x4.mul(v128.load(at), over));
}
