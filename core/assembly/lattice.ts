function modulo(value: f64, by: f64): f64 {
  return value - by * Math.floor(value / by);
}

/** 32 bits drawn for a cell by a seed (integer hash, Wellons 2018, “lowbias32”). */
export function drawn(cell: u32, seed: u32): u32 {
  let h: u32 = ((cell + 1) * 0x9e3779b1) ^ ((seed + 1) * 0x85ebca77);
  h = (h ^ (h >> 16)) * 0x7feb352d;
  h = (h ^ (h >> 15)) * 0x846ca68b;
  return h ^ (h >> 16);
}

/** The number of a cell of a lattice that wraps: so many cells in a row, rows, and the shift of a row of tiles against the one above. */
export function cellOf(x: f64, y: f64, row: f64, rows: f64, shift: f64): u32 {
  const tiles = Math.floor(y / rows);
  return <u32>((y - tiles * rows) * row + modulo(x - tiles * shift, row));
}
