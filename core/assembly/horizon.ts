/** Columns that look at once: four vectors. */
const ACROSS: i32 = 16;
/** Steps between two questions whether anything further on can be higher. */
const STEPS: i32 = 8;

/** The highest of sixteen values from `at` on. */
function highest(at: usize): f32 {
  const four = f32x4.pmax(
    f32x4.pmax(v128.load(at), v128.load(at, 16)),
    f32x4.pmax(v128.load(at, 32), v128.load(at, 48)),
  );
  const two = f32x4.pmax(four, v128.shuffle<i32>(four, four, 2, 3, 0, 1));
  return max<f32>(f32x4.extract_lane(two, 0), f32x4.extract_lane(two, 1));
}

/**
 * For each row of a field, and each sixteen of its columns, the highest value of that row and the seven after it, as far as
 * there are rows. `width` columns a row, a multiple of sixteen.
 */
export function peaksOf(field: usize, width: i32, rows: i32, peaks: usize): void {
  const cells = width / ACROSS;
  const line: usize = (<usize>cells) << 2;
  for (let k = 0; k < rows * cells; k++) {
    store<f32>(peaks + ((<usize>k) << 2), highest(field + ((<usize>k) << 6)));
  }
  // Going down, the rows after each are as they were.
  for (let y = 0; y < rows; y++) {
    const last = min(STEPS, rows - y);
    for (let cell = 0; cell < cells; cell++) {
      const at = peaks + <usize>y * line + ((<usize>cell) << 2);
      let most = load<f32>(at);
      for (let k = 1; k < last; k++) most = max<f32>(most, load<f32>(at + <usize>k * line));
      store<f32>(at, most);
    }
  }
}

/** The least height by which the four values could still rise over their horizon at a distance. */
function needed(h: v128, best: v128, far: v128): v128 {
  return f32x4.add(h, f32x4.mul(best, far));
}

/**
 * Adds `share` · cos² of the horizon in one direction to `sum` (`size` values a row), for the rows `first` … `first` + `count`
 * − 1 of a field of `width` columns, whose receivers begin at column `pad`. A step away from a receiver lies `down` (−1 or 1)
 * rows and `halves` half columns on, the mean of two pixels where it falls between them; `reach` steps are looked at, unless
 * `peaks` say that nothing on the way can be higher. `inverse` holds one over each number of steps.
 */
export function sweepHorizons(
  field: usize,
  width: i32,
  peaks: usize,
  inverse: usize,
  first: i32,
  count: i32,
  pad: i32,
  size: i32,
  sum: usize,
  down: i32,
  halves: i32,
  reach: i32,
  step: f32,
  bias: f32,
  share: f32,
): void {
  const stride: isize = (<isize>width) << 2;
  const cells = width / ACROSS;
  const half = f32x4.splat(0.5);
  const one = f32x4.splat(1);
  const zero = f32x4.splat(0);
  const steps = f32x4.splat(step);
  const biases = f32x4.splat(bias);
  const shares = f32x4.splat(share);
  for (let y = 0; y < count; y++) {
    const row = first + y;
    for (let x = 0; x < size; x += ACROSS) {
      const at = field + <usize>row * <usize>stride + ((<usize>(pad + x)) << 2);
      const h0 = v128.load(at);
      const h1 = v128.load(at, 16);
      const h2 = v128.load(at, 32);
      const h3 = v128.load(at, 48);
      let b0 = zero;
      let b1 = zero;
      let b2 = zero;
      let b3 = zero;
      for (let s = 1; s <= reach; s += STEPS) {
        const end = min(s + STEPS, reach + 1);
        const near = (s * halves) >> 1;
        const far = ((s + STEPS - 1) * halves + 1) >> 1;
        const top = down > 0 ? row + s : row - s - STEPS + 1;
        const from = (pad + x + min(near, far)) >> 4;
        const to = (pad + x + max(near, far) + ACROSS) >> 4;
        const line = peaks + ((<usize>(top * cells)) << 2);
        let peak = load<f32>(line + ((<usize>from) << 2));
        for (let cell = from + 1; cell <= to; cell++)
          peak = max<f32>(peak, load<f32>(line + ((<usize>cell) << 2)));
        const away = f32x4.splat(<f32>s);
        const least = f32x4.pmin(
          f32x4.pmin(needed(h0, b0, away), needed(h1, b1, away)),
          f32x4.pmin(needed(h2, b2, away), needed(h3, b3, away)),
        );
        if (!v128.any_true(f32x4.lt(least, f32x4.splat(peak)))) continue;
        for (let t = s; t < end; t++) {
          const over = v128.load32_splat(inverse + ((<usize>t) << 2));
          const columns = t * halves;
          const to = <usize>(<isize>at + <isize>(t * down) * stride + ((<isize>(columns >> 1)) << 2));
          let v0 = v128.load(to);
          let v1 = v128.load(to, 16);
          let v2 = v128.load(to, 32);
          let v3 = v128.load(to, 48);
          if (columns & 1) {
            v0 = f32x4.mul(f32x4.add(v0, v128.load(to, 4)), half);
            v1 = f32x4.mul(f32x4.add(v1, v128.load(to, 20)), half);
            v2 = f32x4.mul(f32x4.add(v2, v128.load(to, 36)), half);
            v3 = f32x4.mul(f32x4.add(v3, v128.load(to, 52)), half);
          }
          b0 = f32x4.pmax(b0, f32x4.mul(f32x4.sub(v0, h0), over));
          b1 = f32x4.pmax(b1, f32x4.mul(f32x4.sub(v1, h1), over));
          b2 = f32x4.pmax(b2, f32x4.mul(f32x4.sub(v2, h2), over));
          b3 = f32x4.pmax(b3, f32x4.mul(f32x4.sub(v3, h3), over));
        }
      }
      const out = sum + ((<usize>(y * size + x)) << 2);
      const t0 = f32x4.pmax(zero, f32x4.sub(f32x4.div(b0, steps), biases));
      const t1 = f32x4.pmax(zero, f32x4.sub(f32x4.div(b1, steps), biases));
      const t2 = f32x4.pmax(zero, f32x4.sub(f32x4.div(b2, steps), biases));
      const t3 = f32x4.pmax(zero, f32x4.sub(f32x4.div(b3, steps), biases));
      v128.store(out, f32x4.add(v128.load(out), f32x4.div(shares, f32x4.add(one, f32x4.mul(t0, t0)))));
      v128.store(
        out,
        f32x4.add(v128.load(out, 16), f32x4.div(shares, f32x4.add(one, f32x4.mul(t1, t1)))),
        16,
      );
      v128.store(
        out,
        f32x4.add(v128.load(out, 32), f32x4.div(shares, f32x4.add(one, f32x4.mul(t2, t2)))),
        32,
      );
      v128.store(
        out,
        f32x4.add(v128.load(out, 48), f32x4.div(shares, f32x4.add(one, f32x4.mul(t3, t3)))),
        48,
      );
    }
  }
}
