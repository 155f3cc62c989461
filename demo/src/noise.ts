import { hash2 } from './random.ts';

const fade = (t: number) => t * t * t * (t * (t * 6 - 15) + 10);

const TURNS = 64;
const GX = Float64Array.from({ length: TURNS }, (_, k) => Math.cos((2 * Math.PI * k) / TURNS));
const GY = Float64Array.from({ length: TURNS }, (_, k) => Math.sin((2 * Math.PI * k) / TURNS));

function corner(i: number, j: number, seed: number, dx: number, dy: number): number {
  const k = hash2(i, j, seed) * TURNS;
  return GX[k | 0] * dx + GY[k | 0] * dy;
}

/** Gradient noise of unit cells, about −1..1 (Perlin 2002). */
export function noise(x: number, y: number, seed: number): number {
  const i = Math.floor(x);
  const j = Math.floor(y);
  const fx = x - i;
  const fy = y - j;
  const u = fade(fx);
  const a = corner(i, j, seed, fx, fy);
  const b = corner(i + 1, j, seed, fx - 1, fy);
  const c = corner(i, j + 1, seed, fx, fy - 1);
  const d = corner(i + 1, j + 1, seed, fx - 1, fy - 1);
  const top = a + (b - a) * u;
  const bottom = c + (d - c) * u;
  return (top + (bottom - top) * fade(fy)) * 1.5;
}

/** Sum of `octaves` of noise, each twice as fine and half as strong; about −1..1. */
export function fractal(x: number, y: number, octaves: number, seed: number): number {
  let sum = 0;
  let weight = 0.5;
  let scale = 1;
  for (let k = 0; k < octaves; k++) {
    sum += weight * noise(x * scale, y * scale, seed + 101 * k);
    weight *= 0.5;
    scale *= 2.03;
  }
  return sum;
}

/** 0 below `low`, 1 above `high`, smooth between. */
export function smooth(low: number, high: number, v: number): number {
  const t = Math.min(1, Math.max(0, (v - low) / (high - low)));
  return t * t * (3 - 2 * t);
}

/** Distances to the nearest and second nearest of jittered points in unit cells, and the nearest's id. */
export function cells(x: number, y: number, seed: number): { first: number; second: number; id: number } {
  const i0 = Math.floor(x);
  const j0 = Math.floor(y);
  let first = 9;
  let second = 9;
  let id = 0;
  for (let j = j0 - 1; j <= j0 + 1; j++) {
    for (let i = i0 - 1; i <= i0 + 1; i++) {
      const dx = i + hash2(i, j, seed) - x;
      const dy = j + hash2(i, j, seed + 1) - y;
      const d = Math.sqrt(dx * dx + dy * dy);
      if (d < first) {
        second = first;
        first = d;
        id = hash2(i, j, seed + 2);
      } else if (d < second) second = d;
    }
  }
  return { first, second, id };
}
