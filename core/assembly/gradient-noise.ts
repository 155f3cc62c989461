import { cellOf, drawn } from './lattice';

function fade(t: f64): f64 {
  return t * t * t * (t * (6 * t - 15) + 10);
}

/** Place in the tables of 256 directions that a corner of the lattice has. */
function directionOf(x: f64, y: f64, row: f64, rows: f64, shift: f64, seed: u32): usize {
  return (<usize>(drawn(cellOf(x, y, row, rows, shift), seed) & 255)) << 3;
}

/** The fade of two places. */
function fade2(t: v128): v128 {
  const inner = f64x2.sub(f64x2.mul(f64x2.splat(6), t), f64x2.splat(15));
  const cubed = f64x2.mul(f64x2.mul(t, t), t);
  return f64x2.mul(cubed, f64x2.add(f64x2.mul(t, inner), f64x2.splat(10)));
}

/** How far two places lie along the slope of a corner. */
function along2(slopeX: f64, slopeY: f64, dx: v128, dy: v128): v128 {
  return f64x2.add(f64x2.mul(f64x2.splat(slopeX), dx), f64x2.mul(f64x2.splat(slopeY), dy));
}

/** From one value to another of two places. */
function between2(a: v128, b: v128, share: v128): v128 {
  return f64x2.add(a, f64x2.mul(share, f64x2.sub(b, a)));
}

/** Gradient noise −1..1 on a lattice that wraps, at places in cells times `times` (Perlin 2002). Neighbours in one cell go together. */
export function gradientNoise(
  xs: usize,
  ys: usize,
  out: usize,
  count: i32,
  times: f64,
  row: f64,
  rows: f64,
  shift: f64,
  seed: u32,
  cos: usize,
  sin: usize,
): void {
  let cellX: f64 = NaN;
  let cellY: f64 = NaN;
  let x00: f64 = 0;
  let y00: f64 = 0;
  let x10: f64 = 0;
  let y10: f64 = 0;
  let x01: f64 = 0;
  let y01: f64 = 0;
  let x11: f64 = 0;
  let y11: f64 = 0;
  const bytes: usize = (<usize>count) << 3;
  const one = f64x2.splat(1);
  for (let k: usize = 0; k < bytes; k += 8) {
    const x = times * load<f64>(xs + k);
    const y = times * load<f64>(ys + k);
    const x0 = Math.floor(x);
    const y0 = Math.floor(y);
    if (x0 !== cellX || y0 !== cellY) {
      cellX = x0;
      cellY = y0;
      let direction = directionOf(x0, y0, row, rows, shift, seed);
      x00 = load<f64>(cos + direction);
      y00 = load<f64>(sin + direction);
      direction = directionOf(x0 + 1, y0, row, rows, shift, seed);
      x10 = load<f64>(cos + direction);
      y10 = load<f64>(sin + direction);
      direction = directionOf(x0, y0 + 1, row, rows, shift, seed);
      x01 = load<f64>(cos + direction);
      y01 = load<f64>(sin + direction);
      direction = directionOf(x0 + 1, y0 + 1, row, rows, shift, seed);
      x11 = load<f64>(cos + direction);
      y11 = load<f64>(sin + direction);
    }
    if (k + 8 < bytes) {
      const x2 = f64x2.mul(f64x2.splat(times), v128.load(xs + k));
      const y2 = f64x2.mul(f64x2.splat(times), v128.load(ys + k));
      const cellX2 = f64x2.splat(cellX);
      const cellY2 = f64x2.splat(cellY);
      const isIn = v128.and(f64x2.eq(f64x2.floor(x2), cellX2), f64x2.eq(f64x2.floor(y2), cellY2));
      if (i64x2.all_true(isIn)) {
        const dx2 = f64x2.sub(x2, cellX2);
        const dy2 = f64x2.sub(y2, cellY2);
        const left2 = f64x2.sub(dx2, one);
        const up2 = f64x2.sub(dy2, one);
        const fx2 = fade2(dx2);
        const above2 = between2(along2(x00, y00, dx2, dy2), along2(x10, y10, left2, dy2), fx2);
        const below2 = between2(along2(x01, y01, dx2, up2), along2(x11, y11, left2, up2), fx2);
        v128.store(out + k, f64x2.mul(f64x2.splat(Math.SQRT2), between2(above2, below2, fade2(dy2))));
        k += 8;
        continue;
      }
    }
    const dx = x - x0;
    const dy = y - y0;
    const fx = fade(dx);
    const top = x00 * dx + y00 * dy;
    const topRight = x10 * (dx - 1) + y10 * dy;
    const low = x01 * dx + y01 * (dy - 1);
    const lowRight = x11 * (dx - 1) + y11 * (dy - 1);
    const above = top + fx * (topRight - top);
    const below = low + fx * (lowRight - low);
    store<f64>(out + k, Math.SQRT2 * (above + fade(dy) * (below - above)));
  }
}
