/**
 * The slopes of three planes of normals, `room` bytes apart, added to those of three more behind them: unit vectors again in
 * place of these.
 */
export function addSlopes(planes: usize, room: usize, bytes: usize, leastZ: f32): void {
  const one = f32x4.splat(1);
  for (let at = planes; at < planes + bytes; at += 16) {
    const za = f32x4.max(f32x4.splat(leastZ), v128.load(at + 2 * room));
    const zb = v128.load(at + 5 * room);
    const x = f32x4.add(f32x4.div(v128.load(at), za), f32x4.div(v128.load(at + 3 * room), zb));
    const y = f32x4.add(f32x4.div(v128.load(at + room), za), f32x4.div(v128.load(at + 4 * room), zb));
    const square = f32x4.add(f32x4.add(f32x4.mul(x, x), f32x4.mul(y, y)), one);
    const scale = f32x4.div(one, f32x4.sqrt(square));
    v128.store(at + 3 * room, f32x4.mul(x, scale));
    v128.store(at + 4 * room, f32x4.mul(y, scale));
    v128.store(at + 5 * room, scale);
  }
}
