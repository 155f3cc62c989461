/** A plane brought up to another where that is higher, in place; `bytes` of each. */
export function raisePlane(plane: usize, other: usize, bytes: usize): void {
  for (let at: usize = 0; at < bytes; at += 16)
    v128.store(plane + at, f32x4.pmax(v128.load(plane + at), v128.load(other + at)));
}
