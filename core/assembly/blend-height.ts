/** Heights blended in place where they are covered: 0 added, 1 raised to, 2 lowered to, 3 replaced. A step of 0 is one vector for all. */
export function blendHeight(
  below: usize,
  above: usize,
  cover: usize,
  bytes: usize,
  overStep: usize,
  coverStep: usize,
  rule: i32,
  base: f32,
): void {
  for (let at: usize = 0; at < bytes; at += 16) {
    const value = v128.load(below + at);
    const own = f32x4.add(f32x4.splat(base), v128.load(above + at * overStep));
    let to = own;
    if (rule === 0) to = f32x4.add(value, own);
    if (rule === 1) to = f32x4.pmax(value, own);
    if (rule === 2) to = f32x4.pmin(value, own);
    const share = v128.load(cover + at * coverStep);
    v128.store(below + at, f32x4.add(value, f32x4.mul(share, f32x4.sub(to, value))));
  }
}
