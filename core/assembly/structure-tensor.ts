/**
 * Adds the products of a plane's slopes, times a weight, to three planes of `width` values a row. Rows of the plane are `stride`
 * bytes, one of them before the first, and have one value before their own; `side` and `centre` weigh the rows of a derivative.
 */
export function structureTensor(
  plane: usize,
  stride: usize,
  xx: usize,
  xy: usize,
  yy: usize,
  width: i32,
  rows: i32,
  side: f32,
  centre: f32,
  weight: f32,
): void {
  const bySide = f32x4.splat(0.5 * side);
  const byCentre = f32x4.splat(0.5 * centre);
  const by = f32x4.splat(weight);
  for (let y = 0; y < rows; y++) {
    const up = plane + <usize>y * stride;
    const here = up + stride;
    const down = here + stride;
    for (let x = 0; x < width; x += 4) {
      const at: usize = (<usize>x) << 2;
      const aboveLeft = v128.load(up + at);
      const aboveRight = v128.load(up + at, 8);
      const belowLeft = v128.load(down + at);
      const belowRight = v128.load(down + at, 8);
      const rising = f32x4.sub(belowRight, aboveLeft);
      const falling = f32x4.sub(aboveRight, belowLeft);
      const middle = f32x4.sub(v128.load(here + at, 8), v128.load(here + at));
      const gx = f32x4.add(f32x4.mul(bySide, f32x4.add(rising, falling)), f32x4.mul(byCentre, middle));
      const across = f32x4.sub(v128.load(down + at, 4), v128.load(up + at, 4));
      const gy = f32x4.add(f32x4.mul(bySide, f32x4.sub(rising, falling)), f32x4.mul(byCentre, across));
      const wx = f32x4.mul(by, gx);
      const place: usize = (<usize>(y * width + x)) << 2;
      // The last vector of a row reaches into the next, to which nothing may be added yet.
      const left = width - x;
      const lanes = left >= 4 ? i32x4.splat(-1) : i32x4.lt_s(i32x4(0, 1, 2, 3), i32x4.splat(left));
      const ofX = v128.load(xx + place);
      const ofXy = v128.load(xy + place);
      const ofY = v128.load(yy + place);
      v128.store(xx + place, f32x4.add(ofX, v128.and(lanes, f32x4.mul(wx, gx))));
      v128.store(xy + place, f32x4.add(ofXy, v128.and(lanes, f32x4.mul(wx, gy))));
      v128.store(yy + place, f32x4.add(ofY, v128.and(lanes, f32x4.mul(f32x4.mul(by, gy), gy))));
    }
  }
}
