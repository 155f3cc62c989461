/** Four values 0..1 as whole codes of 8 bits. */
function codes(value: v128): v128 {
  const held = f32x4.pmin(f32x4.pmax(f32x4.splat(0), value), f32x4.splat(1));
  return i32x4.trunc_sat_f32x4_s(f32x4.add(f32x4.mul(held, f32x4.splat(255)), f32x4.splat(0.5)));
}

/** The sRGB curve by roots of roots, to a hundredth of a code of 8 bits (least squares, its largest miss weighed up). */
function curve(linear: v128): v128 {
  const v = f32x4.pmax(f32x4.splat(0), f32x4.pmin(linear, f32x4.splat(1)));
  const second = f32x4.sqrt(v);
  const fourth = f32x4.sqrt(second);
  const eighth = f32x4.sqrt(fourth);
  const bent = f32x4.add(
    f32x4.add(f32x4.mul(v, f32x4.splat(-0.01756247)), f32x4.mul(second, f32x4.splat(0.64236376))),
    f32x4.add(f32x4.mul(fourth, f32x4.splat(0.71211266)), f32x4.mul(eighth, f32x4.splat(-0.33687087))),
  );
  const straight = f32x4.mul(v, f32x4.splat(12.92));
  return v128.bitselect(straight, bent, f32x4.le(v, f32x4.splat(<f32>0.0031308)));
}

/** Four values by a gain and a base, or through the sRGB curve. */
function shown(at: usize, curved: bool, gain: v128, base: v128): v128 {
  const value = v128.load(at);
  return codes(curved ? curve(value) : f32x4.add(f32x4.mul(value, gain), base));
}

/** Opaque pixels of 8 bits a channel, red first, of three planes; `bytes` is a whole number of vectors. */
export function screenCodes(
  red: usize,
  green: usize,
  blue: usize,
  out: usize,
  bytes: usize,
  curved: bool,
  gain: f32,
  base: f32,
): void {
  const by = f32x4.splat(gain);
  const from = f32x4.splat(base);
  for (let at: usize = 0; at < bytes; at += 16) {
    const r = shown(red + at, curved, by, from);
    const g = i32x4.shl(shown(green + at, curved, by, from), 8);
    const b = i32x4.shl(shown(blue + at, curved, by, from), 16);
    v128.store(out + at, v128.or(v128.or(r, g), v128.or(b, i32x4.splat(0xff000000))));
  }
}
