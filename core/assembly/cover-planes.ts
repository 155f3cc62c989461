/** Two covers combined in place of the first: 0 by the product, 1 by the larger, 2 by the product with what is not covered. */
export function combineCovers(cover: usize, own: usize, bytes: usize, step: usize, how: i32): void {
  const one = f32x4.splat(1);
  for (let at: usize = 0; at < bytes; at += 16) {
    const a = v128.load(cover + at);
    const b = v128.load(own + at * step);
    const product = f32x4.mul(a, how === 2 ? f32x4.sub(one, b) : b);
    v128.store(cover + at, how === 1 ? f32x4.pmax(a, b) : product);
  }
}

/** Values scaled about one of them that becomes 0.5, held to 0..1, in place. */
export function levelPlane(plane: usize, bytes: usize, middle: f32, scale: f32): void {
  const half = f32x4.splat(0.5);
  for (let at = plane; at < plane + bytes; at += 16) {
    const away = f32x4.sub(v128.load(at), f32x4.splat(middle));
    const share = f32x4.add(f32x4.mul(away, f32x4.splat(scale)), half);
    v128.store(at, f32x4.pmax(f32x4.splat(0), f32x4.pmin(share, f32x4.splat(1))));
  }
}
