/** Bytes of a patch's features: four vectors. */
const PATCH: usize = 64;

function squared(a: usize, b: usize): v128 {
  const d = f32x4.sub(v128.load(a), v128.load(b));
  return f32x4.mul(d, d);
}

/**
 * Which of `count` patches is nearest to one by its features, leaving out those whose corner lies less than `apart` from
 * (x, y) on both axes. Corners are pairs of 32-bit integers. The squared distance is written to `distance`.
 */
export function nearestPatch(
  features: usize,
  bank: usize,
  corners: usize,
  count: i32,
  x: i32,
  y: i32,
  apart: i32,
  distance: usize,
): i32 {
  let best: f32 = Infinity;
  let which = 0;
  for (let k = 0; k < count; k++) {
    const at = bank + <usize>k * PATCH;
    let sums = f32x4.add(squared(features, at), squared(features + 16, at + 16));
    sums = f32x4.add(sums, f32x4.add(squared(features + 32, at + 32), squared(features + 48, at + 48)));
    const pairs = f32x4.add(sums, v128.shuffle<i32>(sums, sums, 2, 3, 0, 1));
    const sum = f32x4.extract_lane(pairs, 0) + f32x4.extract_lane(pairs, 1);
    if (sum >= best) continue;
    const corner = corners + ((<usize>k) << 3);
    if (abs<i32>(load<i32>(corner) - x) < apart && abs<i32>(load<i32>(corner + 4) - y) < apart) continue;
    best = sum;
    which = k;
  }
  store<f32>(distance, best);
  return which;
}
