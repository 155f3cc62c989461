/** Pixels at a time: four vectors of four. */
const STEP: i32 = 16;
/** One pair of vectors, as far apart as they lie, by its weight. */
function pair(before: usize, after: usize, weight: v128): v128 {
  return f32x4.mul(f32x4.add(v128.load(before), v128.load(after)), weight);
}

/** Values of a row less `base` behind `pad` bytes of what lies beyond its ends, as the edge table says. */
function padded(row: usize, width: i32, pad: usize, columns: usize, base: f32, line: usize): void {
  const bytes: usize = (<usize>width) << 2;
  const all = f32x4.splat(base);
  let x: usize = 0;
  for (; x + 16 <= bytes; x += 16) v128.store(line + pad + x, f32x4.sub(v128.load(row + x), all));
  for (; x < bytes; x += 4) store<f32>(line + pad + x, load<f32>(row + x) - base);
  for (let k: usize = 0; k < pad; k += 4) {
    const right = pad + bytes + k;
    store<f32>(line + k, load<f32>(row + ((<usize>load<i32>(columns + k)) << 2)) - base);
    store<f32>(line + right, load<f32>(row + ((<usize>load<i32>(columns + right)) << 2)) - base);
  }
}

/**
 * Gaussian by direct convolution. What is weighed is how far each value lies from the plane's first, so that what is constant
 * stays so to the bit. `source` becomes the result, row by row: what later rows still look at is held in `held`, room for
 * 4 · radius + 1 rows that begin `apart` bytes from one another. `columns` and `rows` are the edge tables, `kernel` half of it from its middle, `line` room for a padded
 * row, `pointers` for 2 · radius + 1 addresses.
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
  held: usize,
  apart: usize,
  pointers: usize,
): void {
  const pad: usize = (<usize>radius) << 2;
  const bytes: usize = (<usize>width) << 2;
  const base = load<f32>(source);
  // The first and the last rows are looked at from both ends; those between, while they are near.
  const head = min(radius, height);
  const tail = max(head, height - radius);
  const ring = 2 * radius + 1;
  const ends = held + <usize>ring * apart;
  for (let y = 0; y < head + height - tail; y++) {
    const row = y < head ? y : y - head + tail;
    padded(source + <usize>row * bytes, width, pad, columns, base, line);
    along(line + pad, ends + <usize>y * apart, width, kernel, pad);
  }
  let known = head;
  for (let y = 0; y < height; y++) {
    const last = min(tail, y + radius + 1);
    for (; known < last; known++) {
      padded(source + <usize>known * bytes, width, pad, columns, base, line);
      along(line + pad, held + <usize>(known % ring) * apart, width, kernel, pad);
    }
    for (let k = 0; k < ring; k++) {
      const row = load<i32>(rows + ((<usize>(y + k)) << 2));
      const at =
        row < head
          ? ends + <usize>row * apart
          : row >= tail
            ? ends + <usize>(head + row - tail) * apart
            : held + <usize>(row % ring) * apart;
      store<usize>(pointers + ((<usize>k) << 2), at);
    }
    down(pointers + pad, source + <usize>y * bytes, width, kernel, pad, base);
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
      a = f32x4.add(a, pair(before, after, weight));
      b = f32x4.add(b, pair(before + 16, after + 16, weight));
      c = f32x4.add(c, pair(before + 32, after + 32, weight));
      d = f32x4.add(d, pair(before + 48, after + 48, weight));
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
      a = f32x4.add(a, pair(above, below, weight));
      b = f32x4.add(b, pair(above + 16, below + 16, weight));
      c = f32x4.add(c, pair(above + 32, below + 32, weight));
      d = f32x4.add(d, pair(above + 48, below + 48, weight));
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
