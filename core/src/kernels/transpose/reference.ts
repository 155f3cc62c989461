/** A plane turned over its diagonal: rows become columns. */
export function transposePlane(plane: Float32Array, width: number, height: number): Float32Array {
  const out = new Float32Array(plane.length);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) out[x * height + y] = plane[y * width + x];
  }
  return out;
}

export const reference = { transposePlane };
