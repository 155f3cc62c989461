/** A value −1…1 as its code of 8 bits. */
function asCode(value: v128): v128 {
  const code = f32x4.floor(
    f32x4.add(f32x4.mul(f32x4.add(value, f32x4.splat(1)), f32x4.splat(127.5)), f32x4.splat(0.5)),
  );
  return f32x4.sub(f32x4.mul(code, f32x4.splat(2 / 255)), f32x4.splat(1));
}

/** Normals in place of which their slopes are written, across in the first plane and down in the second; `bytes` of each. */
export function shippedSlopes(x: usize, y: usize, z: usize, bytes: usize, green: f32): void {
  for (let at: usize = 0; at < bytes; at += 16) {
    const up = f32x4.pmax(f32x4.splat(0.02), asCode(v128.load(z + at)));
    v128.store(x + at, f32x4.div(asCode(v128.load(x + at)), up));
    v128.store(y + at, f32x4.div(f32x4.mul(f32x4.splat(green), asCode(v128.load(y + at))), up));
  }
}
