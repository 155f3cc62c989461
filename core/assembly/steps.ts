/** Four steps of 32-bit floats, added to four sums of 64 bits. */
function addFour(sums: usize, steps: v128): void {
  v128.store(sums, f64x2.add(v128.load(sums), f64x2.promote_low_f32x4(steps)));
  const high = v128.shuffle<i32>(steps, steps, 2, 3, 0, 1);
  v128.store(sums, f64x2.add(v128.load(sums, 16), f64x2.promote_low_f32x4(high)), 16);
}

/**
 * Adds the steps from each column of `rows` rows to the next (the last one across the edge) to `columns`, and writes the sum of
 * the steps from each row to the next, but from the last. Sums are 64-bit floats.
 */
export function addSteps(plane: usize, width: i32, rows: i32, columns: usize, between: usize): void {
  const bytes: usize = (<usize>width) << 2;
  for (let y = 0; y < rows; y++) {
    const row = plane + <usize>y * bytes;
    let x: usize = 0;
    for (; x + 20 <= bytes; x += 16) {
      addFour(columns + 2 * x, f32x4.abs(f32x4.sub(v128.load(row + x, 4), v128.load(row + x))));
    }
    for (; x < bytes; x += 4) {
      const next = x + 4 < bytes ? row + x + 4 : row;
      const at = columns + 2 * x;
      store<f64>(at, load<f64>(at) + <f64>abs<f32>(load<f32>(next) - load<f32>(row + x)));
    }
    if (y + 1 === rows) return;
    const below = row + bytes;
    let sums = f64x2.splat(0);
    for (x = 0; x + 16 <= bytes; x += 16) {
      const steps = f32x4.abs(f32x4.sub(v128.load(below + x), v128.load(row + x)));
      const high = v128.shuffle<i32>(steps, steps, 2, 3, 0, 1);
      sums = f64x2.add(sums, f64x2.add(f64x2.promote_low_f32x4(steps), f64x2.promote_low_f32x4(high)));
    }
    let sum = f64x2.extract_lane(sums, 0) + f64x2.extract_lane(sums, 1);
    for (; x < bytes; x += 4) sum += <f64>abs<f32>(load<f32>(below + x) - load<f32>(row + x));
    store<f64>(between + ((<usize>y) << 3), sum);
  }
}
