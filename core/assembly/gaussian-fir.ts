/** Values of f32 at a byte address and its seven neighbours, as two vectors of four. */
const STEP: i32 = 8;

/** One value of the convolution along a line, at a byte address in it. */
function one(at: usize, kernel: usize, radius: i32): f32 {
  let sum: f32 = load<f32>(at) * load<f32>(kernel);
  for (let k = 1; k <= radius; k++) {
    const d: usize = (<usize>k) << 2;
    sum += (load<f32>(at - d) + load<f32>(at + d)) * load<f32>(kernel + d);
  }
  return sum;
}

/**
 * Gaussian by direct convolution. `source` becomes the result; `middle` is a plane to work in. `columns` and `rows` are the
 * edge tables, `kernel` half of it from its middle, `line` room for a padded row, `pointers` for 2 · radius + 1 addresses.
 */
export function gaussianFir(
  source: usize,
  middle: usize,
  width: i32,
  height: i32,
  columns: usize,
  rows: usize,
  kernel: usize,
  radius: i32,
  line: usize,
  pointers: usize,
): void {
  const pad: usize = (<usize>radius) << 2;
  const bytes: usize = (<usize>width) << 2;
  for (let y = 0; y < height; y++) {
    const row = source + <usize>y * bytes;
    memory.copy(line + pad, row, bytes);
    for (let k = 0; k < radius; k++) {
      const left: usize = (<usize>k) << 2;
      const right = pad + bytes + left;
      store<f32>(line + left, load<f32>(row + ((<usize>load<i32>(columns + left)) << 2)));
      store<f32>(line + right, load<f32>(row + ((<usize>load<i32>(columns + right)) << 2)));
    }
    const out = middle + <usize>y * bytes;
    let x = 0;
    for (; x + STEP <= width; x += STEP) {
      const at = line + pad + ((<usize>x) << 2);
      const first = v128.load_splat<f32>(kernel);
      let a = f32x4.mul(v128.load(at), first);
      let b = f32x4.mul(v128.load(at + 16), first);
      for (let k = 1; k <= radius; k++) {
        const d: usize = (<usize>k) << 2;
        const weight = v128.load_splat<f32>(kernel + d);
        a = f32x4.add(a, f32x4.mul(f32x4.add(v128.load(at - d), v128.load(at + d)), weight));
        b = f32x4.add(b, f32x4.mul(f32x4.add(v128.load(at + 16 - d), v128.load(at + 16 + d)), weight));
      }
      v128.store(out + ((<usize>x) << 2), a);
      v128.store(out + ((<usize>x) << 2) + 16, b);
    }
    for (; x < width; x++) {
      const at = (<usize>x) << 2;
      store<f32>(out + at, one(line + pad + at, kernel, radius));
    }
  }
  for (let y = 0; y < height; y++) {
    for (let k = -radius; k <= radius; k++) {
      const row = <usize>load<i32>(rows + ((<usize>(y + radius + k)) << 2));
      store<usize>(pointers + ((<usize>(k + radius)) << 2), middle + row * bytes);
    }
    const centre = pointers + pad;
    const out = source + <usize>y * bytes;
    let x = 0;
    for (; x + STEP <= width; x += STEP) {
      const at: usize = (<usize>x) << 2;
      const first = v128.load_splat<f32>(kernel);
      const here = load<usize>(centre) + at;
      let a = f32x4.mul(v128.load(here), first);
      let b = f32x4.mul(v128.load(here + 16), first);
      for (let k = 1; k <= radius; k++) {
        const d: usize = (<usize>k) << 2;
        const weight = v128.load_splat<f32>(kernel + d);
        const above = load<usize>(centre - d) + at;
        const below = load<usize>(centre + d) + at;
        a = f32x4.add(a, f32x4.mul(f32x4.add(v128.load(above), v128.load(below)), weight));
        b = f32x4.add(b, f32x4.mul(f32x4.add(v128.load(above + 16), v128.load(below + 16)), weight));
      }
      v128.store(out + at, a);
      v128.store(out + at + 16, b);
    }
    for (; x < width; x++) {
      const at: usize = (<usize>x) << 2;
      let sum: f32 = load<f32>(load<usize>(centre) + at) * load<f32>(kernel);
      for (let k = 1; k <= radius; k++) {
        const d: usize = (<usize>k) << 2;
        const both = load<f32>(load<usize>(centre - d) + at) + load<f32>(load<usize>(centre + d) + at);
        sum += both * load<f32>(kernel + d);
      }
      store<f32>(out + at, sum);
    }
  }
}
