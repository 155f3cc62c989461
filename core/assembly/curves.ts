const SIGN: i32 = 0x80000000;
/** The bits of 1, and what an exponent is moved by. */
const ONE: i32 = 0x3f800000;
const MANTISSA: i32 = 0x7fffff;
/** First guess of a cube root: two thirds of the bits of 1, a little less. */
const CUBE_GUESS: f32 = 709921077;

/**
 * Cube roots of four values, of either sign (Halley's method, twice, from the bits divided by three). What lies nearer to 0
 * than 10⁻²¹ counts as that much: below it the steps would be of numbers so small that the processor takes long over them.
 */
export function cbrt4(value: v128): v128 {
  const sign = v128.and(value, i32x4.splat(SIGN));
  const x = f32x4.max(f32x4.abs(value), f32x4.splat(<f32>1e-21));
  const third = f32x4.mul(f32x4.convert_i32x4_s(x), f32x4.splat(<f32>(1.0 / 3.0)));
  let y = i32x4.trunc_sat_f32x4_s(f32x4.add(third, f32x4.splat(CUBE_GUESS)));
  for (let k = 0; k < 2; k++) {
    const cube = f32x4.mul(f32x4.mul(y, y), y);
    const more = f32x4.add(cube, f32x4.add(x, x));
    const less = f32x4.add(f32x4.add(cube, cube), x);
    y = f32x4.mul(y, f32x4.div(more, less));
  }
  return v128.or(y, sign);
}

/** Logarithms to base 2 of four values above 0 (the series of the inverse hyperbolic tangent). */
export function log2x4(x: v128): v128 {
  let exponent = i32x4.sub(i32x4.shr_u(x, 23), i32x4.splat(127));
  let m = v128.or(v128.and(x, i32x4.splat(MANTISSA)), i32x4.splat(ONE));
  const large = f32x4.gt(m, f32x4.splat(<f32>Math.SQRT2));
  m = v128.bitselect(f32x4.mul(m, f32x4.splat(0.5)), m, large);
  // A comparison that holds is −1.
  exponent = i32x4.sub(exponent, large);
  const t = f32x4.div(f32x4.sub(m, f32x4.splat(1)), f32x4.add(m, f32x4.splat(1)));
  const s = f32x4.mul(t, t);
  let sum = f32x4.splat(<f32>(1.0 / 9.0));
  sum = f32x4.add(f32x4.mul(sum, s), f32x4.splat(<f32>(1.0 / 7.0)));
  sum = f32x4.add(f32x4.mul(sum, s), f32x4.splat(<f32>(1.0 / 5.0)));
  sum = f32x4.add(f32x4.mul(sum, s), f32x4.splat(<f32>(1.0 / 3.0)));
  sum = f32x4.add(f32x4.mul(sum, s), f32x4.splat(1));
  const log = f32x4.mul(f32x4.mul(t, sum), f32x4.splat(<f32>(2 * Math.LOG2E)));
  return f32x4.add(f32x4.convert_i32x4_s(exponent), log);
}

/** 2 to the power of four values. */
export function exp2x4(value: v128): v128 {
  const x = f32x4.min(f32x4.max(value, f32x4.splat(-126)), f32x4.splat(127));
  const whole = f32x4.nearest(x);
  const f = f32x4.mul(f32x4.sub(x, whole), f32x4.splat(<f32>Math.LN2));
  let sum = f32x4.splat(<f32>(1.0 / 5040.0));
  sum = f32x4.add(f32x4.mul(sum, f), f32x4.splat(<f32>(1.0 / 720.0)));
  sum = f32x4.add(f32x4.mul(sum, f), f32x4.splat(<f32>(1.0 / 120.0)));
  sum = f32x4.add(f32x4.mul(sum, f), f32x4.splat(<f32>(1.0 / 24.0)));
  sum = f32x4.add(f32x4.mul(sum, f), f32x4.splat(<f32>(1.0 / 6.0)));
  sum = f32x4.add(f32x4.mul(sum, f), f32x4.splat(0.5));
  sum = f32x4.add(f32x4.mul(sum, f), f32x4.splat(1));
  sum = f32x4.add(f32x4.mul(sum, f), f32x4.splat(1));
  const scale = i32x4.shl(i32x4.add(i32x4.trunc_sat_f32x4_s(whole), i32x4.splat(127)), 23);
  return f32x4.mul(sum, scale);
}

/** e to the power of four values. */
export function exp4(x: v128): v128 {
  return exp2x4(f32x4.mul(x, f32x4.splat(<f32>Math.LOG2E)));
}
