/**
 * sRGB codes 0..1 of four linear values, held to 0..1 (IEC 61966-2-1): 1.055·x^(1/2.4) − 0.055 as a polynomial in the eighth
 * root of x, interpolated at Chebyshev's nodes of what lies above the straight part, off by 10⁻⁸ at most but for rounding.
 */
export function encoded4(linear: v128): v128 {
  // What is no number is 0 in the plain reference.
  const one = f32x4.splat(1);
  const v = f32x4.pmax(f32x4.splat(0), f32x4.pmin(linear, one));
  const root = f32x4.sqrt(f32x4.sqrt(f32x4.sqrt(v)));
  let curved = f32x4.splat(<f32>0.012899779);
  curved = f32x4.add(f32x4.mul(curved, root), f32x4.splat(<f32>-0.0915115259));
  curved = f32x4.add(f32x4.mul(curved, root), f32x4.splat(<f32>0.418364416));
  curved = f32x4.add(f32x4.mul(curved, root), f32x4.splat(<f32>0.80756231));
  curved = f32x4.add(f32x4.mul(curved, root), f32x4.splat(<f32>-0.108438012));
  curved = f32x4.add(f32x4.mul(curved, root), f32x4.splat(<f32>0.0175583239));
  curved = f32x4.add(f32x4.mul(curved, root), f32x4.splat(<f32>-0.0564352846));
  const straight = f32x4.mul(v, f32x4.splat(<f32>12.92));
  const code = v128.bitselect(straight, curved, f32x4.le(v, f32x4.splat(<f32>0.0031308)));
  return v128.bitselect(one, code, f32x4.eq(v, one));
}

/** sRGB codes of linear values in place. */
export function encodeSrgb(plane: usize, count: i32): void {
  const end = plane + ((<usize>count) << 2);
  for (let at = plane; at < end; at += 16) v128.store(at, encoded4(v128.load(at)));
}
