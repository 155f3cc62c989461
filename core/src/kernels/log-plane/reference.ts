/** Natural logarithms of values and a floor above 0; what is below 0 counts as 0. */
export function logPlane(plane: Float32Array, floor: number): Float32Array {
  const out = new Float32Array(plane.length);
  for (let i = 0; i < out.length; i++) out[i] = Math.log(Math.max(0, plane[i]) + floor);
  return out;
}

export const reference = { logPlane };
