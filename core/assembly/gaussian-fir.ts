/** Pixels at a time: four vectors of four. */
const STEP: i32 = 16;
/** Two vectors by one weight. */
function pair(before: v128, after: v128, weight: v128): v128 {
  return f32x4.mul(f32x4.add(before, after), weight);
}

/** Makes a row of `width` values behind `pad` bytes to what they lie from `base`, and fills in what lies beyond its ends. */
function padded(line: usize, width: i32, pad: usize, columns: usize, base: f32): void {
  const bytes: usize = (<usize>width) << 2;
  const row = line + pad;
  const all = f32x4.splat(base);
  let x: usize = 0;
  for (; x + 16 <= bytes; x += 16) v128.store(row + x, f32x4.sub(v128.load(row + x), all));
  for (; x < bytes; x += 4) store<f32>(row + x, load<f32>(row + x) - base);
  for (let k: usize = 0; k < pad; k += 4) {
    const right = pad + bytes + k;
    store<f32>(line + k, load<f32>(row + ((<usize>load<i32>(columns + k)) << 2)));
    store<f32>(line + right, load<f32>(row + ((<usize>load<i32>(columns + right)) << 2)));
  }
}

/**
 * Gaussian of a band by direct convolution, into `result`. `block` holds its rows between `radius` more above and below, each
 * with room for `radius` values at both ends. It is gone down in strips so narrow that what is looked at again stays near: in
 * `held`, room for 2 · radius + 1 rows of a strip. What is weighed is how far each value lies from `base`, so that what is
 * constant stays so to the bit. `columns` is the edge table, `kernel` half of it from its middle, `pointers` room for
 * 2 · radius + 1 addresses.
 */
export function gaussianFirBand(
  block: usize,
  result: usize,
  width: i32,
  rows: i32,
  base: f32,
  columns: usize,
  kernel: usize,
  radius: i32,
  held: usize,
  strip: i32,
  pointers: usize,
): void {
  const pad: usize = (<usize>radius) << 2;
  const bytes: usize = (<usize>width) << 2;
  const ring = 2 * radius + 1;
  const all = rows + 2 * radius;
  for (let k = 0; k < all; k++) padded(block + <usize>k * (bytes + 2 * pad), width, pad, columns, base);
  const apart = (<usize>strip) << 2;
  for (let left = 0; left < width; left += strip) {
    const across = min(strip, width - left);
    const x = (<usize>left) << 2;
    for (let k = 0; k < all; k++) {
      const row = block + <usize>k * (bytes + 2 * pad) + x + pad;
      along(row, held + <usize>(k % ring) * apart, across, kernel, pad);
      const y = k - 2 * radius;
      if (y < 0) continue;
      for (let j = 0; j < ring; j++)
        store<usize>(pointers + ((<usize>j) << 2), held + <usize>((y + j) % ring) * apart);
      down(pointers + pad, result + <usize>y * bytes + x, across, kernel, pad, base);
    }
  }
}

/** A padded row, from its first value on, into `out`. */
function along(line: usize, out: usize, width: i32, kernel: usize, pad: usize): void {
  const middle = v128.load32_splat(kernel);
  let x = 0;
  for (; x + STEP <= width; x += STEP) {
    const at = line + ((<usize>x) << 2);
    let a = f32x4.mul(v128.load(at), middle);
    let b = f32x4.mul(v128.load(at, 16), middle);
    let c = f32x4.mul(v128.load(at, 32), middle);
    let d = f32x4.mul(v128.load(at, 48), middle);
    for (let k: usize = 4; k <= pad; k += 4) {
      const weight = v128.load32_splat(kernel + k);
      const before = at - k;
      const after = at + k;
      a = f32x4.add(a, pair(v128.load(before), v128.load(after), weight));
      b = f32x4.add(b, pair(v128.load(before, 16), v128.load(after, 16), weight));
      c = f32x4.add(c, pair(v128.load(before, 32), v128.load(after, 32), weight));
      d = f32x4.add(d, pair(v128.load(before, 48), v128.load(after, 48), weight));
    }
    const to = out + ((<usize>x) << 2);
    v128.store(to, a);
    v128.store(to, b, 16);
    v128.store(to, c, 32);
    v128.store(to, d, 48);
  }
  for (; x < width; x++) {
    const at: usize = (<usize>x) << 2;
    let sum = load<f32>(line + at) * load<f32>(kernel);
    for (let k: usize = 4; k <= pad; k += 4)
      sum += (load<f32>(line + at - k) + load<f32>(line + at + k)) * load<f32>(kernel + k);
    store<f32>(out + at, sum);
  }
}

/** One row by those about it, whose addresses lie about `centre`, into `out`; `base` is put back. */
function down(centre: usize, out: usize, width: i32, kernel: usize, pad: usize, base: f32): void {
  const middle = v128.load32_splat(kernel);
  const all = f32x4.splat(base);
  let x = 0;
  for (; x + STEP <= width; x += STEP) {
    const at: usize = (<usize>x) << 2;
    const here = load<usize>(centre) + at;
    let a = f32x4.mul(v128.load(here), middle);
    let b = f32x4.mul(v128.load(here, 16), middle);
    let c = f32x4.mul(v128.load(here, 32), middle);
    let d = f32x4.mul(v128.load(here, 48), middle);
    for (let k: usize = 4; k <= pad; k += 4) {
      const weight = v128.load32_splat(kernel + k);
      const above = load<usize>(centre - k) + at;
      const below = load<usize>(centre + k) + at;
      a = f32x4.add(a, pair(v128.load(above), v128.load(below), weight));
      b = f32x4.add(b, pair(v128.load(above, 16), v128.load(below, 16), weight));
      c = f32x4.add(c, pair(v128.load(above, 32), v128.load(below, 32), weight));
      d = f32x4.add(d, pair(v128.load(above, 48), v128.load(below, 48), weight));
    }
    v128.store(out + at, f32x4.add(a, all));
    v128.store(out + at, f32x4.add(b, all), 16);
    v128.store(out + at, f32x4.add(c, all), 32);
    v128.store(out + at, f32x4.add(d, all), 48);
  }
  for (; x < width; x++) {
    const at: usize = (<usize>x) << 2;
    let sum = load<f32>(load<usize>(centre) + at) * load<f32>(kernel);
    for (let k: usize = 4; k <= pad; k += 4) {
      const both = load<f32>(load<usize>(centre - k) + at) + load<f32>(load<usize>(centre + k) + at);
      sum += both * load<f32>(kernel + k);
    }
    store<f32>(out + at, sum + base);
  }
}
