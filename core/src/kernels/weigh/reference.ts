/** For each of some samples: where its taps begin, how many there are, and what each weighs. */
export interface Taps {
  first: Int32Array;
  count: number;
  weights: Float32Array;
}

/** Taps along one axis, and for each of them the column or row that is there once edges are met. */
export interface Weighing {
  taps: Taps;
  samples: Int32Array;
}

/**
 * Weighs the columns of a plane of `width` × `height`: one value for each of the taps' samples. `columns` names, for each tap of
 * each sample, the column that is there.
 */
function weighColumns(
  plane: Float32Array,
  width: number,
  height: number,
  { first, count, weights }: Taps,
  columns: Int32Array,
): Float32Array {
  const toWidth = first.length;
  const out = new Float32Array(toWidth * height);
  for (let y = 0; y < height; y++) {
    const from = y * width;
    const to = y * toWidth;
    for (let x = 0; x < toWidth; x++) {
      const at = x * count;
      const start = first[x];
      let sum = 0;
      if (start >= 0 && start + count <= width) {
        const base = from + start;
        for (let k = 0; k < count; k++) sum += plane[base + k] * weights[at + k];
      } else {
        for (let k = 0; k < count; k++) sum += plane[from + columns[at + k]] * weights[at + k];
      }
      out[to + x] = sum;
    }
  }
  return out;
}

/** Weighs the rows of a plane in the same way. */
function weighRows(
  plane: Float32Array,
  width: number,
  { first, count, weights }: Taps,
  rows: Int32Array,
): Float32Array {
  const toHeight = first.length;
  const out = new Float32Array(width * toHeight);
  const line = new Float64Array(width);
  for (let y = 0; y < toHeight; y++) {
    line.fill(0);
    for (let k = 0; k < count; k++) {
      const w = weights[y * count + k];
      if (w === 0) continue;
      const from = rows[y * count + k] * width;
      for (let x = 0; x < width; x++) line[x] += w * plane[from + x];
    }
    out.set(line, y * width);
  }
  return out;
}

/**
 * Weighs the columns and then the rows of a plane whose rows have `width` values, and writes what comes of it to `out` from
 * `at` on.
 */
export function weighBand(
  plane: Float32Array,
  width: number,
  across: Weighing,
  down: Weighing,
  out: Float32Array,
  at: number,
): void {
  const weighed = weighColumns(plane, width, plane.length / width, across.taps, across.samples);
  out.set(weighRows(weighed, across.taps.first.length, down.taps, down.samples), at);
}

export const reference = { weighBand };
