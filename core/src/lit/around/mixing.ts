import type { Triple } from '../shade.ts';

export const mix = (a: number, b: number, t: number): number => a + (b - a) * t;

/** 0 below `low`, 1 above `high`, smooth between. */
export function smooth(low: number, high: number, value: number): number {
  const t = Math.min(1, Math.max(0, (value - low) / (high - low)));
  return t * t * (3 - 2 * t);
}

export const mixed = (a: Triple, b: Triple, t: number): Triple => [
  mix(a[0], b[0], t),
  mix(a[1], b[1], t),
  mix(a[2], b[2], t),
];

export const scaled = (a: Triple, by: number): Triple => [a[0] * by, a[1] * by, a[2] * by];
export const times = (a: Triple, b: Triple): Triple => [a[0] * b[0], a[1] * b[1], a[2] * b[2]];
export const plus = (a: Triple, b: Triple): Triple => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
