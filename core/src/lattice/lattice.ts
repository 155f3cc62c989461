/**
 * Cells of noise on a torus, possibly turned and stretched: the tile's coordinates (u, v), each 0..1, are brought to cells by a
 * matrix of whole numbers, so that one tile further on lies a whole number of cells further on. What is drawn at random for a
 * cell is the same for all cells that lie whole tiles apart.
 */
export interface Lattice {
  /** Cells across: xu·u + xv·v. */
  xu: number;
  xv: number;
  /** Cells down: yu·u + yv·v. */
  yu: number;
  yv: number;
  /** The cells of one tile, sheared to rows: so many in a row, rows, and the shift of a row of tiles against the one above. */
  row: number;
  rows: number;
  shift: number;
}

const modulo = (value: number, by: number): number => value - by * Math.floor(value / by);

/** Greatest common divisor d of two whole numbers, and whole numbers with m·a + n·b = d. */
function bezout(a: number, b: number): [d: number, m: number, n: number] {
  let [r0, r1] = [a, b];
  let [m0, m1] = [1, 0];
  let [n0, n1] = [0, 1];
  while (r1 !== 0) {
    const q = Math.trunc(r0 / r1);
    [r0, r1] = [r1, r0 - q * r1];
    [m0, m1] = [m1, m0 - q * m1];
    [n0, n1] = [n1, n0 - q * n1];
  }
  return r0 < 0 ? [-r0, -m0, -n0] : [r0, m0, n0];
}

/**
 * The lattice of a matrix of whole numbers.
 * @throws RangeError where its determinant is 0: the cells would have no area.
 */
export function latticeOf(xu: number, xv: number, yu: number, yv: number): Lattice {
  const cells = Math.abs(xu * yv - xv * yu);
  if (cells === 0) throw new RangeError(`The matrix ${xu} ${xv} ${yu} ${yv} has no area.`);
  const [rows, m, n] = bezout(yu, yv);
  const row = cells / rows;
  return { xu, xv, yu, yv, row, rows, shift: modulo(m * xu + n * xv, row) };
}

/** The same cells, so many times as fine on both axes. */
export const finer = ({ xu, xv, yu, yv }: Lattice, times: number): Lattice =>
  latticeOf(times * xu, times * xv, times * yu, times * yv);

/** A whole number that names a cell, the same whole tiles further on: 0 … cells of a tile − 1. */
export function cellOf({ row, rows, shift }: Lattice, x: number, y: number): number {
  const tiles = Math.floor(y / rows);
  return (y - tiles * rows) * row + modulo(x - tiles * shift, row);
}

/** What is asked of the cells of a noise. */
export interface CellShape {
  /** Length of a cell across its direction, as a share of the tile's width, and its height over its width. */
  size: number;
  aspect: number;
  /** How many times as long as wide a cell is, along its direction. */
  stretch: number;
  /** Direction in degrees, clockwise from the right. */
  degrees: number;
}

/** The four entries before they are whole. */
function wanted({ size, aspect, stretch, degrees }: CellShape): [number, number, number, number] {
  const turn = (degrees * Math.PI) / 180;
  const [sin, cos] = [Math.sin(turn), Math.cos(turn)];
  const along = 1 / (size * stretch);
  const across = 1 / size;
  return [along * cos, along * sin * aspect, -across * sin, across * cos * aspect];
}

/** The lattice nearest to the cells that are asked for. */
export function nearestLattice(shape: CellShape): Lattice {
  const entries = wanted(shape);
  let best: [number, number, number, number] = [1, 0, 0, 1];
  let least = Number.POSITIVE_INFINITY;
  // Whole numbers on both sides of each entry, and one further: rounding each alone may leave no area.
  for (let k = 0; k < 4 ** 4; k++) {
    const tried = entries.map((entry, i) => Math.floor(entry) - 1 + ((k >> (2 * i)) & 3)) as typeof best;
    const [xu, xv, yu, yv] = tried;
    if (xu * yv - xv * yu <= 0) continue;
    const off = tried.reduce((sum, value, i) => sum + (value - entries[i]) ** 2, 0);
    if (off < least) [best, least] = [tried, off];
  }
  return latticeOf(...best);
}

/** Size (share of the width), stretch and direction that the cells of a lattice have. */
export function shapeOfLattice({ xu, xv, yu, yv }: Lattice, aspect: number): Omit<CellShape, 'aspect'> {
  const along = Math.hypot(xu, xv / aspect);
  const across = Math.hypot(yu, yv / aspect);
  return {
    size: 1 / across,
    stretch: across / along,
    degrees: (Math.atan2(xv / aspect, xu) * 180) / Math.PI,
  };
}
