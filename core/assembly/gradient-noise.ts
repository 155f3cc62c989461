import { cellOf, drawn } from './lattice';

function fade(t: f64): f64 {
  return t * t * t * (t * (6 * t - 15) + 10);
}

/** Place in the tables of 256 directions that a corner of the lattice has. */
function directionOf(x: f64, y: f64, row: f64, rows: f64, shift: f64, seed: u32): usize {
  return (<usize>(drawn(cellOf(x, y, row, rows, shift), seed) & 255)) << 3;
}

/** Gradient noise −1..1 on a lattice that wraps, at places in cells times `times` (Perlin 2002). */
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
  for (let k: usize = 0; k < (<usize>count) << 3; k += 8) {
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
