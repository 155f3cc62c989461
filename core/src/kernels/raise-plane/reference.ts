/** Brings a plane up to another where that is higher. */
export function raisePlane(plane: Float32Array, other: Float32Array): void {
  for (let i = 0; i < plane.length; i++) if (other[i] > plane[i]) plane[i] = other[i];
}

export const reference = { raisePlane };
