/** Which derivative: along the row alone, of the fourth order, or three rows weighed. */
const SHARP: i32 = 0;

function times(v: v128, weight: f32): v128 {
  return f32x4.mul(v, f32x4.splat(weight));
}

function less(a: usize, b: usize): v128 {
  return f32x4.sub(v128.load(a), v128.load(b));
}

/** A row with two values beyond each end, as the edge table says. */
function padded(row: usize, bytes: usize, columns: usize, to: usize): void {
  memory.copy(to + 8, row, bytes);
  for (let k: usize = 0; k < 8; k += 4) {
    store<f32>(to + k, load<f32>(row + ((<usize>load<i32>(columns + k)) << 2)));
    const beyond = 8 + bytes + k;
    store<f32>(to + beyond, load<f32>(row + ((<usize>load<i32>(columns + beyond)) << 2)));
  }
}

/**
 * Slopes of a plane to the right and downwards. `columns` and `rows` are edge tables with two entries beyond each end;
 * `lines` has room for three padded rows of `width` + 8. `side` and `centre` weigh the rows of the kernels that smooth across.
 */
export function gradient(
  plane: usize,
  gx: usize,
  gy: usize,
  width: i32,
  height: i32,
  columns: usize,
  rows: usize,
  lines: usize,
  kind: i32,
  side: f32,
  centre: f32,
): void {
  const bytes: usize = (<usize>width) << 2;
  const room = bytes + 32;
  const up = lines;
  const here = lines + room;
  const down = here + room;
  for (let y = 0; y < height; y++) {
    const at = rows + ((<usize>y) << 2);
    const row2 = plane + <usize>load<i32>(at) * bytes;
    const row1 = plane + <usize>load<i32>(at + 4) * bytes;
    const row = plane + <usize>y * bytes;
    const next1 = plane + <usize>load<i32>(at + 12) * bytes;
    const next2 = plane + <usize>load<i32>(at + 16) * bytes;
    const toX = gx + <usize>y * bytes;
    const toY = gy + <usize>y * bytes;
    padded(row, bytes, columns, here);
    if (kind === SHARP) {
      for (let x: usize = 0; x < bytes; x += 16) {
        const h = here + 8 + x;
        const across = f32x4.sub(times(less(h + 4, h - 4), 8), less(h + 8, h - 8));
        v128.store(toX + x, times(across, <f32>(1.0 / 12.0)));
        const along = f32x4.sub(times(less(next1 + x, row1 + x), 8), less(next2 + x, row2 + x));
        v128.store(toY + x, times(along, <f32>(1.0 / 12.0)));
      }
      continue;
    }
    padded(row1, bytes, columns, up);
    padded(next1, bytes, columns, down);
    for (let x: usize = 0; x < bytes; x += 16) {
      const u = up + 8 + x;
      const h = here + 8 + x;
      const d = down + 8 + x;
      const corners = f32x4.add(less(u + 4, u - 4), less(d + 4, d - 4));
      const across = f32x4.add(times(corners, side), times(less(h + 4, h - 4), centre));
      v128.store(toX + x, times(across, 0.5));
      const sides = f32x4.add(less(d - 4, u - 4), less(d + 4, u + 4));
      const along = f32x4.add(times(sides, side), times(less(d, u), centre));
      v128.store(toY + x, times(along, 0.5));
    }
  }
}

/** Slopes become the x and y of unit normals in place; z is written to `nz`. */
export function unitNormals(gx: usize, gy: usize, nz: usize, bytes: usize, scale: f32, signY: f32): void {
  for (let at: usize = 0; at < bytes; at += 16) {
    const p = times(v128.load(gx + at), -scale);
    const q = times(v128.load(gy + at), scale * signY);
    const one = f32x4.splat(1);
    const length = f32x4.sqrt(f32x4.add(f32x4.add(f32x4.mul(p, p), f32x4.mul(q, q)), one));
    const inverse = f32x4.div(one, length);
    v128.store(gx + at, f32x4.mul(p, inverse));
    v128.store(gy + at, f32x4.mul(q, inverse));
    v128.store(nz + at, inverse);
  }
}
