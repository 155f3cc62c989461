/** Two values as whole codes up to `full`, rounded to the nearest in 64 bits. */
function pair(values: v128, full: v128): v128 {
  const scaled = f64x2.add(f64x2.mul(f64x2.promote_low_f32x4(values), full), f64x2.splat(0.5));
  return i32x4.trunc_sat_f64x2_s_zero(scaled);
}

/** Four values, held to 0..1, as codes. */
function codes(at: usize, full: v128): v128 {
  const value = f32x4.pmin(f32x4.pmax(f32x4.splat(0), v128.load(at)), f32x4.splat(1));
  const high = v128.shuffle<i32>(value, value, 2, 3, 0, 1);
  return v128.shuffle<i32>(pair(value, full), pair(high, full), 0, 1, 4, 5);
}

/** A plane of `count` values as codes of 8 bits, each `apart` bytes after the one before; `count` is a multiple of four. */
export function quantise8(plane: usize, out: usize, count: i32, apart: usize): void {
  const full = f64x2.splat(255);
  const end = plane + ((<usize>count) << 2);
  for (let at = plane; at < end; at += 16) {
    const four = codes(at, full);
    store<u8>(out, <u8>i32x4.extract_lane(four, 0));
    store<u8>(out + apart, <u8>i32x4.extract_lane(four, 1));
    store<u8>(out + 2 * apart, <u8>i32x4.extract_lane(four, 2));
    store<u8>(out + 3 * apart, <u8>i32x4.extract_lane(four, 3));
    out += 4 * apart;
  }
}

/** The same in 16 bits. */
export function quantise16(plane: usize, out: usize, count: i32, apart: usize): void {
  const full = f64x2.splat(65535);
  const end = plane + ((<usize>count) << 2);
  for (let at = plane; at < end; at += 16) {
    const four = codes(at, full);
    store<u16>(out, <u16>i32x4.extract_lane(four, 0));
    store<u16>(out + apart, <u16>i32x4.extract_lane(four, 1));
    store<u16>(out + 2 * apart, <u16>i32x4.extract_lane(four, 2));
    store<u16>(out + 3 * apart, <u16>i32x4.extract_lane(four, 3));
    out += 4 * apart;
  }
}
