/** Weights of the B3 spline one and two holes away; what is weighed is how far both lie from the middle. */
const NEAR: f32 = 0.25;
const FAR: f32 = 0.0625;

/** Four values from what stands at the middle, and the sums of what stands near and far: a constant stays so to the bit. */
function weighed(middle: v128, near: v128, far: v128): v128 {
  const both = f32x4.add(middle, middle);
  return f32x4.add(
    middle,
    f32x4.add(
      f32x4.mul(f32x4.sub(near, both), f32x4.splat(NEAR)),
      f32x4.mul(f32x4.sub(far, both), f32x4.splat(FAR)),
    ),
  );
}

/** The same of one value. */
function one(middle: f32, near: f32, far: f32): f32 {
  return middle + ((near - 2 * middle) * NEAR + (far - 2 * middle) * FAR);
}

/**
 * One smoothing of the B3 spline with `hole` pixels between taps. `source` becomes the result; `middle` is a plane to work
 * in; `columns` and `rows` are edge tables with 2 · hole entries beyond each edge; `line` has room for a padded row.
 */
export function atrousSmooth(
  source: usize,
  middle: usize,
  width: i32,
  height: i32,
  hole: i32,
  columns: usize,
  rows: usize,
  line: usize,
): void {
  const reach = 2 * hole;
  const bytes: usize = (<usize>width) << 2;
  const near: usize = (<usize>hole) << 2;
  const far: usize = near << 1;
  for (let y = 0; y < height; y++) {
    const row = source + <usize>y * bytes;
    memory.copy(line + far, row, bytes);
    for (let k = 0; k < reach; k++) {
      const left: usize = (<usize>k) << 2;
      const right = far + bytes + left;
      store<f32>(line + left, load<f32>(row + ((<usize>load<i32>(columns + left)) << 2)));
      store<f32>(line + right, load<f32>(row + ((<usize>load<i32>(columns + right)) << 2)));
    }
    const out = middle + <usize>y * bytes;
    let x = 0;
    for (; x + 4 <= width; x += 4) {
      const at = line + far + ((<usize>x) << 2);
      v128.store(
        out + ((<usize>x) << 2),
        weighed(
          v128.load(at),
          f32x4.add(v128.load(at - near), v128.load(at + near)),
          f32x4.add(v128.load(at - far), v128.load(at + far)),
        ),
      );
    }
    for (; x < width; x++) {
      const at = line + far + ((<usize>x) << 2);
      store<f32>(
        out + ((<usize>x) << 2),
        one(
          load<f32>(at),
          load<f32>(at - near) + load<f32>(at + near),
          load<f32>(at - far) + load<f32>(at + far),
        ),
      );
    }
  }
  for (let y = 0; y < height; y++) {
    const at = rows + ((<usize>(y + reach)) << 2);
    const a = middle + <usize>load<i32>(at - far) * bytes;
    const b = middle + <usize>load<i32>(at - near) * bytes;
    const c = middle + <usize>load<i32>(at) * bytes;
    const d = middle + <usize>load<i32>(at + near) * bytes;
    const e = middle + <usize>load<i32>(at + far) * bytes;
    const out = source + <usize>y * bytes;
    let x: usize = 0;
    for (; x + 16 <= bytes; x += 16) {
      v128.store(
        out + x,
        weighed(
          v128.load(c + x),
          f32x4.add(v128.load(b + x), v128.load(d + x)),
          f32x4.add(v128.load(a + x), v128.load(e + x)),
        ),
      );
    }
    for (; x < bytes; x += 4) {
      store<f32>(
        out + x,
        one(load<f32>(c + x), load<f32>(b + x) + load<f32>(d + x), load<f32>(a + x) + load<f32>(e + x)),
      );
    }
  }
}
