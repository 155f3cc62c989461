/**
 * Weighs the columns of a plane: value x of a row is the sum of `count` (a multiple of four) weights over what stands from
 * `first[x]` on, `before` entries of `columns` lying before the row. The weights of a value sum to 1; what is weighed is how
 * far each sample lies from the first, so that what is constant stays so to the bit.
 */
export function weighColumns(
  source: usize,
  out: usize,
  width: i32,
  height: i32,
  toWidth: i32,
  first: usize,
  count: i32,
  weights: usize,
  columns: usize,
  before: i32,
  after: i32,
  line: usize,
): void {
  const bytes: usize = (<usize>width) << 2;
  const pad: usize = (<usize>before) << 2;
  const taps: usize = (<usize>count) << 2;
  for (let y = 0; y < height; y++) {
    const row = source + <usize>y * bytes;
    memory.copy(line + pad, row, bytes);
    for (let k = 0; k < before; k++) {
      const at: usize = (<usize>k) << 2;
      store<f32>(line + at, load<f32>(row + ((<usize>load<i32>(columns + at)) << 2)));
    }
    for (let k = 0; k < after; k++) {
      const at = pad + bytes + ((<usize>k) << 2);
      store<f32>(line + at, load<f32>(row + ((<usize>load<i32>(columns + at)) << 2)));
    }
    const to = out + ((<usize>(y * toWidth)) << 2);
    for (let x = 0; x < toWidth; x++) {
      const at: usize = (<usize>x) << 2;
      const from = line + pad + <usize>((<isize>load<i32>(first + at)) << 2);
      const own = weights + <usize>x * taps;
      let sum = f32x4.splat(0);
      const base = load<f32>(from);
      const all = f32x4.splat(base);
      for (let k: usize = 0; k < taps; k += 16)
        sum = f32x4.add(sum, f32x4.mul(f32x4.sub(v128.load(from + k), all), v128.load(own + k)));
      const pairs = f32x4.add(sum, v128.shuffle<i32>(sum, sum, 2, 3, 0, 1));
      store<f32>(to + at, base + f32x4.extract_lane(pairs, 0) + f32x4.extract_lane(pairs, 1));
    }
  }
}

/** Weighs the rows of a plane: row y is the sum of `count` weights over the rows that `rows` names. */
export function weighRows(
  source: usize,
  out: usize,
  width: i32,
  toHeight: i32,
  count: i32,
  weights: usize,
  rows: usize,
): void {
  const bytes: usize = (<usize>width) << 2;
  const taps: usize = (<usize>count) << 2;
  for (let y = 0; y < toHeight; y++) {
    const own = weights + <usize>y * taps;
    const which = rows + <usize>y * taps;
    const to = out + <usize>y * bytes;
    let x: usize = 0;
    for (; x + 32 <= bytes; x += 32) {
      const first = source + <usize>load<i32>(which) * bytes + x;
      const baseA = v128.load(first);
      const baseB = v128.load(first + 16);
      let a = f32x4.splat(0);
      let b = f32x4.splat(0);
      for (let k: usize = 4; k < taps; k += 4) {
        const weight = v128.load_splat<f32>(own + k);
        const from = source + <usize>load<i32>(which + k) * bytes + x;
        a = f32x4.add(a, f32x4.mul(f32x4.sub(v128.load(from), baseA), weight));
        b = f32x4.add(b, f32x4.mul(f32x4.sub(v128.load(from + 16), baseB), weight));
      }
      v128.store(to + x, f32x4.add(baseA, a));
      v128.store(to + x + 16, f32x4.add(baseB, b));
    }
    for (; x < bytes; x += 4) {
      const base = load<f32>(source + <usize>load<i32>(which) * bytes + x);
      let sum: f32 = 0;
      for (let k: usize = 4; k < taps; k += 4)
        sum += (load<f32>(source + <usize>load<i32>(which + k) * bytes + x) - base) * load<f32>(own + k);
      store<f32>(to + x, base + sum);
    }
  }
}
