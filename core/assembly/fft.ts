/** Lines that are transformed together: a cache line of 64-bit floats. */
const LINES: i32 = 8;
const BYTES: usize = 64;

function times(re: v128, im: v128, wr: v128, wi: v128): v128 {
  return f64x2.sub(f64x2.mul(re, wr), f64x2.mul(im, wi));
}

function crossed(re: v128, im: v128, wr: v128, wi: v128): v128 {
  return f64x2.add(f64x2.mul(re, wi), f64x2.mul(im, wr));
}

/** Sums and differences of neighbours: the first step where the count is no power of four. */
function pairs(re: usize, im: usize, n: i32): void {
  for (let k = 0; k < n; k += 2) {
    const at: usize = <usize>k * BYTES;
    for (let lane: usize = 0; lane < BYTES; lane += 16) {
      const a = at + lane;
      const b = a + BYTES;
      const ar = v128.load(re + a);
      const ai = v128.load(im + a);
      const br = v128.load(re + b);
      const bi = v128.load(im + b);
      v128.store(re + a, f64x2.add(ar, br));
      v128.store(im + a, f64x2.add(ai, bi));
      v128.store(re + b, f64x2.sub(ar, br));
      v128.store(im + b, f64x2.sub(ai, bi));
    }
  }
}

/** Two steps at once: four parts of `m` points each become one of 4 · m. */
function fours(re: usize, im: usize, n: i32, m: i32, turns: usize): void {
  const part: usize = <usize>m * BYTES;
  const hop: usize = (<usize>(n / (4 * m))) << 4;
  for (let start = 0; start < n; start += 4 * m) {
    for (let j = 0; j < m; j++) {
      const turn = <usize>j * hop;
      const w2r = v128.load64_splat(turns + turn);
      const w2i = v128.load64_splat(turns + turn + 8);
      const w1r = v128.load64_splat(turns + 2 * turn);
      const w1i = v128.load64_splat(turns + 2 * turn + 8);
      const w3r = v128.load64_splat(turns + 3 * turn);
      const w3i = v128.load64_splat(turns + 3 * turn + 8);
      const at = <usize>(start + j) * BYTES;
      for (let lane: usize = 0; lane < BYTES; lane += 16) {
        const a = at + lane;
        const b = a + part;
        const c = b + part;
        const d = c + part;
        const ar = v128.load(re + a);
        const ai = v128.load(im + a);
        const br = v128.load(re + b);
        const bi = v128.load(im + b);
        const cr = v128.load(re + c);
        const ci = v128.load(im + c);
        const dr = v128.load(re + d);
        const di = v128.load(im + d);
        const t1r = times(br, bi, w1r, w1i);
        const t1i = crossed(br, bi, w1r, w1i);
        const t2r = times(cr, ci, w2r, w2i);
        const t2i = crossed(cr, ci, w2r, w2i);
        const t3r = times(dr, di, w3r, w3i);
        const t3i = crossed(dr, di, w3r, w3i);
        const sumR = f64x2.add(ar, t1r);
        const sumI = f64x2.add(ai, t1i);
        const lessR = f64x2.sub(ar, t1r);
        const lessI = f64x2.sub(ai, t1i);
        const bothR = f64x2.add(t2r, t3r);
        const bothI = f64x2.add(t2i, t3i);
        const apartR = f64x2.sub(t2r, t3r);
        const apartI = f64x2.sub(t2i, t3i);
        v128.store(re + a, f64x2.add(sumR, bothR));
        v128.store(im + a, f64x2.add(sumI, bothI));
        v128.store(re + c, f64x2.sub(sumR, bothR));
        v128.store(im + c, f64x2.sub(sumI, bothI));
        v128.store(re + b, f64x2.add(lessR, apartI));
        v128.store(im + b, f64x2.sub(lessI, apartR));
        v128.store(re + d, f64x2.sub(lessR, apartI));
        v128.store(im + d, f64x2.add(lessI, apartR));
      }
    }
  }
}

/** Eight lines of `n` points, laid side by side in the order of reversed bits. */
function lines(re: usize, im: usize, n: i32, turns: usize): void {
  let m = 1;
  if (ctz(n) & 1) {
    pairs(re, im, n);
    m = 2;
  }
  for (; m < n; m *= 4) fours(re, im, n, m, turns);
}

/** Eight columns of a plane into the lines, at reversed places, or out of them. */
function columnsIn(plane: usize, stride: usize, to: usize, n: i32, places: usize): void {
  for (let k = 0; k < n; k++) {
    const from = plane + <usize>k * stride;
    const at = to + <usize>load<i32>(places + ((<usize>k) << 2)) * BYTES;
    for (let lane: usize = 0; lane < BYTES; lane += 16) v128.store(at + lane, v128.load(from + lane));
  }
}

function columnsOut(from: usize, plane: usize, stride: usize, n: i32): void {
  for (let k = 0; k < n; k++) {
    const to = plane + <usize>k * stride;
    const at = from + <usize>k * BYTES;
    for (let lane: usize = 0; lane < BYTES; lane += 16) v128.store(to + lane, v128.load(at + lane));
  }
}

function rowsIn(plane: usize, stride: usize, to: usize, n: i32, places: usize): void {
  for (let k = 0; k < n; k += 2) {
    const first = to + <usize>load<i32>(places + ((<usize>k) << 2)) * BYTES;
    const second = to + <usize>load<i32>(places + ((<usize>(k + 1)) << 2)) * BYTES;
    for (let line = 0; line < LINES; line += 2) {
      const from = plane + <usize>line * stride + ((<usize>k) << 3);
      const a = v128.load(from);
      const b = v128.load(from + stride);
      const at: usize = (<usize>line) << 3;
      v128.store(first + at, v128.shuffle<f64>(a, b, 0, 2));
      v128.store(second + at, v128.shuffle<f64>(a, b, 1, 3));
    }
  }
}

function rowsOut(from: usize, plane: usize, stride: usize, n: i32): void {
  for (let k = 0; k < n; k += 2) {
    const first = from + <usize>k * BYTES;
    const second = first + BYTES;
    for (let line = 0; line < LINES; line += 2) {
      const at: usize = (<usize>line) << 3;
      const a = v128.load(first + at);
      const b = v128.load(second + at);
      const to = plane + <usize>line * stride + ((<usize>k) << 3);
      v128.store(to, v128.shuffle<f64>(a, b, 0, 2));
      v128.store(to + stride, v128.shuffle<f64>(a, b, 1, 3));
    }
  }
}

/**
 * Rows `from` up to `to` of a complex plane transformed in place; their length is a power of two from eight on, their count a
 * whole number of eights. `turns` holds cos and −sin of k turns in n for each k; `places` the reversed bits of each place;
 * `scratch` has room for eight lines, twice.
 */
export function fftRows(
  re: usize,
  im: usize,
  width: i32,
  from: i32,
  to: i32,
  turns: usize,
  places: usize,
  scratch: usize,
): void {
  const stride: usize = (<usize>width) << 3;
  const other = scratch + <usize>width * BYTES;
  for (let y = from; y < to; y += LINES) {
    const at = <usize>y * stride;
    rowsIn(re + at, stride, scratch, width, places);
    rowsIn(im + at, stride, other, width, places);
    lines(scratch, other, width, turns);
    rowsOut(scratch, re + at, stride, width);
    rowsOut(other, im + at, stride, width);
  }
}

/** The same of columns `from` up to `to`. */
export function fftColumns(
  re: usize,
  im: usize,
  width: i32,
  height: i32,
  from: i32,
  to: i32,
  turns: usize,
  places: usize,
  scratch: usize,
): void {
  const stride: usize = (<usize>width) << 3;
  const other = scratch + <usize>height * BYTES;
  for (let x = from; x < to; x += LINES) {
    const at: usize = (<usize>x) << 3;
    columnsIn(re + at, stride, scratch, height, places);
    columnsIn(im + at, stride, other, height, places);
    lines(scratch, other, height, turns);
    columnsOut(scratch, re + at, stride, height);
    columnsOut(other, im + at, stride, height);
  }
}
