import { nearest4 } from './rounding';

const SIGN: i32 = 0x80000000;

/** Four channels at a place between pixels; shares of the way across and down in all lanes. */
function sampled(at: usize, stride: usize, across: v128, down: v128): v128 {
  const top = v128.load(at);
  const bottom = v128.load(at + stride);
  const above = f32x4.add(top, f32x4.mul(across, f32x4.sub(v128.load(at, 16), top)));
  const below = f32x4.add(bottom, f32x4.mul(across, f32x4.sub(v128.load(at + stride, 16), bottom)));
  return f32x4.add(above, f32x4.mul(down, f32x4.sub(below, above)));
}

/**
 * Averages four interleaved channels along the lines of a flow, both ways from each pixel, in Euler steps of `step` pixels. `from`
 * and `flow` (two values a pixel) have `pad` more pixels on every side than `out`; `weights` holds a weight for each of `steps`
 * steps, that of the pixel itself first; `scale` brings their sum to 1. Both ways go side by side in one vector: x and y of
 * one, x and y of the other, from the pixel.
 */
export function flowLines(
  from: usize,
  flow: usize,
  out: usize,
  width: i32,
  height: i32,
  pad: i32,
  weights: usize,
  steps: i32,
  step: f32,
  scale: f32,
): void {
  const stride: i32 = width + 2 * pad;
  const down: usize = (<usize>stride) << 4;
  const own = v128.load32_splat(weights);
  const both = f32x4.splat(scale);
  const apart = f32x4.splat(step);
  const oneWay = i32x4(0, 0, SIGN, SIGN);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const centre: usize = <usize>((y + pad) * stride + x + pad);
      let sum = f32x4.mul(own, v128.load(from + (centre << 4)));
      let way = v128.xor(v128.load64_splat(flow + (centre << 3)), oneWay);
      let place = f32x4.splat(0);
      for (let k: i32 = 1; k <= steps; k++) {
        place = f32x4.add(place, f32x4.mul(way, apart));
        const low = f32x4.floor(place);
        const share = f32x4.sub(place, low);
        const cell = nearest4(low);
        const p: usize = centre + <usize>(i32x4.extract_lane(cell, 1) * stride + i32x4.extract_lane(cell, 0));
        const q: usize = centre + <usize>(i32x4.extract_lane(cell, 3) * stride + i32x4.extract_lane(cell, 2));
        const one = sampled(
          from + (p << 4),
          down,
          v128.shuffle<f32>(share, share, 0, 0, 0, 0),
          v128.shuffle<f32>(share, share, 1, 1, 1, 1),
        );
        const other = sampled(
          from + (q << 4),
          down,
          v128.shuffle<f32>(share, share, 2, 2, 2, 2),
          v128.shuffle<f32>(share, share, 3, 3, 3, 3),
        );
        const weight = v128.load32_splat(weights + ((<usize>k) << 2));
        sum = f32x4.add(sum, f32x4.mul(weight, f32x4.add(one, other)));
        // The flow of the nearest pixel, in the sense of the way so far.
        const near = nearest4(place);
        const a: usize = centre + <usize>(i32x4.extract_lane(near, 1) * stride + i32x4.extract_lane(near, 0));
        const b: usize = centre + <usize>(i32x4.extract_lane(near, 3) * stride + i32x4.extract_lane(near, 2));
        const next = v128.load64_lane(flow + (b << 3), v128.load64_zero(flow + (a << 3)), 1);
        const product = f32x4.mul(next, way);
        const turned = f32x4.add(product, v128.shuffle<f32>(product, product, 1, 0, 3, 2));
        way = v128.xor(next, v128.and(turned, i32x4.splat(SIGN)));
      }
      v128.store(out + ((<usize>(y * width + x)) << 4), f32x4.mul(sum, both));
    }
  }
}
