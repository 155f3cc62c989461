import { nearest4 } from './rounding';

const SIGN: i32 = 0x80000000;

/**
 * Sharpens edges across a flow: where `signs` is above 0 a pixel goes towards the brightest one within reach across the flow,
 * below 0 towards the darkest, all four channels from the same pixel. `from` has `pad` more pixels on every side than `out`,
 * `flow` (two values a pixel) and `signs` (−1..1) have as many as `out`. `reach` samples on each side are `step` pixels apart.
 */
export function shockEdges(
  from: usize,
  flow: usize,
  signs: usize,
  out: usize,
  width: i32,
  height: i32,
  pad: i32,
  reach: i32,
  step: f32,
  share: f32,
  least: f32,
): void {
  const stride: i32 = width + 2 * pad;
  const apart = f32x4.splat(step);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const place: usize = <usize>(y * width + x);
      const centre: usize = from + ((<usize>((y + pad) * stride + x + pad)) << 4);
      const own = v128.load(centre);
      const sign = load<f32>(signs + (place << 2));
      if (abs(sign) < least) {
        v128.store(out + (place << 4), own);
        continue;
      }
      // Across the flow, one way and the other: −y, x, y, −x.
      const along = v128.load64_splat(flow + (place << 3));
      const turned = v128.shuffle<f32>(along, along, 1, 0, 3, 2);
      const across = f32x4.mul(v128.xor(turned, i32x4(SIGN, 0, 0, SIGN)), apart);
      // Without a branch: which of two neighbours is brighter is as good as chance.
      const side: f32 = sign > 0 ? 1 : -1;
      let best = side * load<f32>(centre);
      let chosen = centre;
      let off = f32x4.splat(0);
      for (let t: i32 = 1; t <= reach; t++) {
        off = f32x4.add(off, across);
        const near = nearest4(off);
        const a =
          centre + ((<usize>(i32x4.extract_lane(near, 1) * stride + i32x4.extract_lane(near, 0))) << 4);
        const b =
          centre + ((<usize>(i32x4.extract_lane(near, 3) * stride + i32x4.extract_lane(near, 2))) << 4);
        const one = side * load<f32>(a);
        chosen = select<usize>(a, chosen, one > best);
        best = max(best, one);
        const other = side * load<f32>(b);
        chosen = select<usize>(b, chosen, other > best);
        best = max(best, other);
      }
      const amount = f32x4.splat(share * abs(sign));
      const other = v128.load(chosen);
      v128.store(out + (place << 4), f32x4.add(own, f32x4.mul(amount, f32x4.sub(other, own))));
    }
  }
}
