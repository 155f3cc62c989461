import { mix, smooth } from './mixing.ts';

/** A value 0…1 for each point of a lattice, always the same. */
function valueAt(x: number, y: number, z: number): number {
  let h = Math.imul(x, 0x27d4eb2d) ^ Math.imul(y, 0x165667b1) ^ Math.imul(z, 0x9e3779b1);
  h = Math.imul(h ^ (h >>> 15), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return ((h ^ (h >>> 16)) >>> 0) / 2 ** 32;
}

/** Value noise 0…1 in space, smooth between the points of its lattice. */
function noiseAt(x: number, y: number, z: number): number {
  const [i, j, k] = [Math.floor(x), Math.floor(y), Math.floor(z)];
  const [u, v, w] = [smooth(0, 1, x - i), smooth(0, 1, y - j), smooth(0, 1, z - k)];
  const row = (b: number, c: number) => mix(valueAt(i, j + b, k + c), valueAt(i + 1, j + b, k + c), u);
  return mix(mix(row(0, 0), row(1, 0), v), mix(row(0, 1), row(1, 1), v), w);
}

/** Value noise summed over so many octaves, 0…1. */
export function fractalAt(x: number, y: number, z: number, octaves: number): number {
  let sum = 0;
  let weight = 0.5;
  let whole = 0;
  for (let k = 0; k < octaves; k++) {
    const times = 2 ** k;
    sum += weight * noiseAt(x * times + 17 * k, y * times, z * times - 9 * k);
    whole += weight;
    weight /= 2;
  }
  return sum / whole;
}
