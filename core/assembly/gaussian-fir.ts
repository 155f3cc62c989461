/** Pixels at a time: two vectors of four. */
const STEP: i32 = 8;
/** Columns that are gone down at once: with all their rows they stay close at hand. */
const STRIP: i32 = 64;
const STRIP_BYTES: usize = 256;

/** One value of the convolution along a line, at a byte address in it. */
function one(at: usize, kernel: usize, radius: i32): f32 {
  const middle = load<f32>(at);
  let sum: f32 = 0;
  for (let k = 1; k <= radius; k++) {
    const d: usize = (<usize>k) << 2;
    sum += (load<f32>(at - d) + load<f32>(at + d) - 2 * middle) * load<f32>(kernel + d);
  }
  return middle + sum;
}

/**
 * Gaussian by direct convolution. What is weighed is how far each pair lies from the middle, so that what is constant stays so
 * to the bit. `source` becomes the result. `columns` and `rows` are the edge tables, `kernel` half of it from its middle, `line`
 * room for a padded row, `strip` for 64 values of every row, `pointers` for 2 · radius + 1 addresses.
 */
export function gaussianFir(
  source: usize,
  width: i32,
  height: i32,
  columns: usize,
  rows: usize,
  kernel: usize,
  radius: i32,
  line: usize,
  strip: usize,
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
    const out = row;
    let x = 0;
    for (; x + STEP <= width; x += STEP) {
      const at = line + pad + ((<usize>x) << 2);
      const hereA = v128.load(at);
      const hereB = v128.load(at + 16);
      const twiceA = f32x4.add(hereA, hereA);
      const twiceB = f32x4.add(hereB, hereB);
      let a = f32x4.splat(0);
      let b = f32x4.splat(0);
      for (let k = 1; k <= radius; k++) {
        const d: usize = (<usize>k) << 2;
        const weight = v128.load_splat<f32>(kernel + d);
        const pairA = f32x4.add(v128.load(at - d), v128.load(at + d));
        const pairB = f32x4.add(v128.load(at + 16 - d), v128.load(at + 16 + d));
        a = f32x4.add(a, f32x4.mul(f32x4.sub(pairA, twiceA), weight));
        b = f32x4.add(b, f32x4.mul(f32x4.sub(pairB, twiceB), weight));
      }
      v128.store(out + ((<usize>x) << 2), f32x4.add(hereA, a));
      v128.store(out + ((<usize>x) << 2) + 16, f32x4.add(hereB, b));
    }
    for (; x < width; x++) {
      const at = (<usize>x) << 2;
      store<f32>(out + at, one(line + pad + at, kernel, radius));
    }
  }
  for (let left = 0; left < width; left += STRIP) {
    const count = min(STRIP, width - left);
    const from = source + ((<usize>left) << 2);
    for (let y = 0; y < height; y++)
      memory.copy(strip + <usize>y * STRIP_BYTES, from + <usize>y * bytes, (<usize>count) << 2);
    down(strip, from, bytes, count, height, rows, kernel, radius, pointers);
  }
}

/** The columns of a strip, into `to`, whose rows are `bytes` apart. */
function down(
  strip: usize,
  to: usize,
  bytes: usize,
  width: i32,
  height: i32,
  rows: usize,
  kernel: usize,
  radius: i32,
  pointers: usize,
): void {
  const pad: usize = (<usize>radius) << 2;
  for (let y = 0; y < height; y++) {
    for (let k = -radius; k <= radius; k++) {
      const row = <usize>load<i32>(rows + ((<usize>(y + radius + k)) << 2));
      store<usize>(pointers + ((<usize>(k + radius)) << 2), strip + row * STRIP_BYTES);
    }
    const centre = pointers + pad;
    const out = to + <usize>y * bytes;
    let x = 0;
    for (; x + STEP <= width; x += STEP) {
      const at: usize = (<usize>x) << 2;
      const here = load<usize>(centre) + at;
      const hereA = v128.load(here);
      const hereB = v128.load(here + 16);
      const twiceA = f32x4.add(hereA, hereA);
      const twiceB = f32x4.add(hereB, hereB);
      let a = f32x4.splat(0);
      let b = f32x4.splat(0);
      for (let k = 1; k <= radius; k++) {
        const d: usize = (<usize>k) << 2;
        const weight = v128.load_splat<f32>(kernel + d);
        const above = load<usize>(centre - d) + at;
        const below = load<usize>(centre + d) + at;
        const pairA = f32x4.add(v128.load(above), v128.load(below));
        const pairB = f32x4.add(v128.load(above + 16), v128.load(below + 16));
        a = f32x4.add(a, f32x4.mul(f32x4.sub(pairA, twiceA), weight));
        b = f32x4.add(b, f32x4.mul(f32x4.sub(pairB, twiceB), weight));
      }
      v128.store(out + at, f32x4.add(hereA, a));
      v128.store(out + at + 16, f32x4.add(hereB, b));
    }
    for (; x < width; x++) {
      const at: usize = (<usize>x) << 2;
      const middleValue = load<f32>(load<usize>(centre) + at);
      let sum: f32 = 0;
      for (let k = 1; k <= radius; k++) {
        const d: usize = (<usize>k) << 2;
        const both = load<f32>(load<usize>(centre - d) + at) + load<f32>(load<usize>(centre + d) + at);
        sum += (both - 2 * middleValue) * load<f32>(kernel + d);
      }
      store<f32>(out + at, middleValue + sum);
    }
  }
}
