/** The value of a table between the entry at a place in memory and the next. */
function between(at: usize, share: f32): f32 {
  const low = load<f32>(at);
  return low + share * (load<f32>(at, 4) - low);
}

/** Values 0..1 looked up in a table of one entry more than `entries`, interpolated; into another plane. */
export function lookUp(values: usize, out: usize, bytes: usize, table: usize, entries: i32): void {
  const last = i32x4.splat(entries - 1);
  for (let at: usize = 0; at < bytes; at += 16) {
    const value = f32x4.pmax(f32x4.splat(0), f32x4.pmin(v128.load(values + at), f32x4.splat(1)));
    const place = f32x4.mul(value, f32x4.splat(<f32>entries));
    const whole = i32x4.min_s(i32x4.trunc_sat_f32x4_s(place), last);
    const share = f32x4.sub(place, f32x4.convert_i32x4_s(whole));
    const k = i32x4.shl(whole, 2);
    const a = between(table + i32x4.extract_lane(k, 0), f32x4.extract_lane(share, 0));
    const b = between(table + i32x4.extract_lane(k, 1), f32x4.extract_lane(share, 1));
    const c = between(table + i32x4.extract_lane(k, 2), f32x4.extract_lane(share, 2));
    const d = between(table + i32x4.extract_lane(k, 3), f32x4.extract_lane(share, 3));
    store<f32>(out + at, a);
    store<f32>(out + at, b, 4);
    store<f32>(out + at, c, 8);
    store<f32>(out + at, d, 12);
  }
}
