function seen(at: usize): v128 {
  return f32x4.sqrt(f32x4.max(v128.load(at), f32x4.splat(0)));
}

function square(v: v128): v128 {
  return f32x4.mul(v, v);
}

/** Square roots of what is above 0, of planes one behind the other; their room ends with whole vectors. */
export function seenPlanes(planes: usize, bytes: usize): void {
  for (let at: usize = 0; at < bytes; at += 16) v128.store(planes + at, seen(planes + at));
}

/** Steps of a copy from the left and from above, added to what is there already. */
function addSteps(planes: usize, channels: i32, upright: usize, level: usize, width: i32, length: i32): void {
  const line = (<usize>width) << 2;
  const plane = line * <usize>length;
  for (let y = 0; y < length; y++) {
    const row = <usize>y * line;
    const above = <usize>(y === 0 ? length - 1 : y - 1) * line;
    let x: usize = 0;
    for (; x + 16 <= line; x += 16) {
      let across = f32x4.splat(0);
      let down = f32x4.splat(0);
      for (let c = 0; c < channels; c++) {
        const at = planes + <usize>c * plane;
        const value = v128.load(at + row + x);
        // The first column has nothing to its left; what is read there is thrown away.
        across = f32x4.add(across, square(f32x4.sub(value, v128.load(at + row + x - 4))));
        down = f32x4.add(down, square(f32x4.sub(value, v128.load(at + above + x))));
      }
      if (x === 0) across = f32x4.replace_lane(across, 0, 0);
      const i = row + x;
      v128.store(upright + i, f32x4.add(v128.load(upright + i), f32x4.sqrt(across)));
      v128.store(level + i, f32x4.add(v128.load(level + i), f32x4.sqrt(down)));
    }
    for (; x < line; x += 4) {
      let across: f32 = 0;
      let down: f32 = 0;
      for (let c = 0; c < channels; c++) {
        const at = planes + <usize>c * plane;
        const value = load<f32>(at + row + x);
        const left = x > 0 ? value - load<f32>(at + row + x - 4) : 0;
        const up = value - load<f32>(at + above + x);
        across += left * left;
        down += up * up;
      }
      const i = row + x;
      store<f32>(upright + i, load<f32>(upright + i) + sqrt<f32>(across));
      store<f32>(level + i, load<f32>(level + i) + sqrt<f32>(down));
    }
  }
}

/** Colour distance of the two copies. */
function distances(a: usize, b: usize, channels: i32, plane: usize, out: usize): void {
  let at: usize = 0;
  for (; at + 16 <= plane; at += 16) {
    let sum = f32x4.splat(0);
    for (let c = 0; c < channels; c++) {
      const from = <usize>c * plane + at;
      sum = f32x4.add(sum, square(f32x4.sub(v128.load(a + from), v128.load(b + from))));
    }
    v128.store(out + at, f32x4.sqrt(sum));
  }
  for (; at < plane; at += 4) {
    let sum: f32 = 0;
    for (let c = 0; c < channels; c++) {
      const d = load<f32>(a + <usize>c * plane + at) - load<f32>(b + <usize>c * plane + at);
      sum += d * d;
    }
    store<f32>(out + at, sqrt<f32>(sum));
  }
}

/** Sum of a plane. */
function sumOf(from: usize, plane: usize): f64 {
  let both = f64x2.splat(0);
  let at: usize = 0;
  for (; at + 16 <= plane; at += 16) {
    const four = v128.load(from + at);
    both = f64x2.add(both, f64x2.promote_low_f32x4(four));
    both = f64x2.add(both, f64x2.promote_low_f32x4(v128.shuffle<i32>(four, four, 2, 3, 0, 1)));
  }
  let sum = f64x2.extract_lane(both, 0) + f64x2.extract_lane(both, 1);
  for (; at < plane; at += 4) sum += <f64>load<f32>(from + at);
  return sum;
}

/**
 * Costs of crossing between neighbouring pixels of a strip, from the planes of its two copies as they are seen. `upright`
 * and `level` begin as zeros; `distance` is a plane to work in.
 */
export function cutCosts(
  a: usize,
  b: usize,
  channels: i32,
  width: i32,
  length: i32,
  distance: usize,
  upright: usize,
  level: usize,
  flat: f64,
  lengthCost: f32,
): void {
  const line = (<usize>width) << 2;
  const plane = line * <usize>length;
  distances(a, b, channels, plane, distance);
  addSteps(a, channels, upright, level, width, length);
  addSteps(b, channels, upright, level, width, length);
  const total = sumOf(upright, plane) + sumOf(level, plane);
  const base = <f32>(total / <f64>(8 * width * length) + flat);
  const bases = f32x4.splat(base);
  const lengths = f32x4.splat(lengthCost);
  for (let y = 0; y < length; y++) {
    const row = <usize>y * line;
    const above = distance + <usize>(y === 0 ? length - 1 : y - 1) * line;
    let x: usize = 0;
    for (; x + 16 <= line; x += 16) {
      const at = row + x;
      const here = v128.load(distance + at);
      const steps = v128.load(upright + at);
      const sum = f32x4.add(here, v128.load(distance + at - 4));
      let cost = f32x4.add(f32x4.div(sum, f32x4.add(steps, bases)), lengths);
      // To the left of the first column there is nothing.
      if (x === 0) cost = f32x4.replace_lane(cost, 0, f32x4.extract_lane(steps, 0));
      v128.store(upright + at, cost);
      const down = f32x4.add(here, v128.load(above + x));
      v128.store(level + at, f32x4.add(f32x4.div(down, f32x4.add(v128.load(level + at), bases)), lengths));
    }
    for (; x < line; x += 4) {
      const at = row + x;
      const here = load<f32>(distance + at);
      if (x > 0) {
        const sum = here + load<f32>(distance + at - 4);
        store<f32>(upright + at, sum / (load<f32>(upright + at) + base) + lengthCost);
      }
      const sum = here + load<f32>(above + x);
      store<f32>(level + at, sum / (load<f32>(level + at) + base) + lengthCost);
    }
  }
}
