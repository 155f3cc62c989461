/** Added to a small number and taken away again it leaves the nearest whole one; its bits tell which. */
const ROUNDING: f32 = 12582912;
const ROUNDING_BITS: i32 = 0x4b400000;

/** The nearest whole numbers of four small values. */
export function nearest4(value: v128): v128 {
  return i32x4.sub(f32x4.add(value, f32x4.splat(ROUNDING)), i32x4.splat(ROUNDING_BITS));
}
