import { log2x4 } from './curves';

/** Natural logarithms of values (below 0 they count as 0) and a floor above 0, in place. */
export function logPlane(plane: usize, bytes: usize, floor: f32): void {
  for (let at = plane; at < plane + bytes; at += 16) {
    const value = f32x4.add(f32x4.pmax(f32x4.splat(0), v128.load(at)), f32x4.splat(floor));
    v128.store(at, f32x4.mul(log2x4(value), f32x4.splat(<f32>Math.LN2)));
  }
}
