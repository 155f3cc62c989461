/** The step from one row to another, summed over its columns. */
export function stepBetween(from: Float32Array, to: Float32Array): number {
  let sum = 0;
  for (let x = 0; x < from.length; x++) sum += Math.abs(to[x] - from[x]);
  return sum;
}

/**
 * Adds the steps from each column of some rows to the next, the last one across the edge, to `columns`. Gives the step from
 * each row to the next, one fewer than there are rows.
 */
export function addSteps(plane: Float32Array, width: number, columns: Float64Array): Float64Array {
  const rows = plane.length / width;
  const between = new Float64Array(Math.max(0, rows - 1));
  for (let y = 0; y < rows; y++) {
    const row = y * width;
    for (let x = 0; x < width - 1; x++) columns[x] += Math.abs(plane[row + x + 1] - plane[row + x]);
    columns[width - 1] += Math.abs(plane[row] - plane[row + width - 1]);
    if (y + 1 < rows) {
      between[y] = stepBetween(
        plane.subarray(row, row + width),
        plane.subarray(row + width, row + 2 * width),
      );
    }
  }
  return between;
}

export const reference = { addSteps };
