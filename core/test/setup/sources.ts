import { Raster } from '@zesty-tile/core';
import { seeded } from '../fields.ts';

/** A surface: linear reflectance at a place in units of the shorter side. */
type Surface = (u: number, v: number) => [number, number, number];

const smooth = (t: number) => t * t * (3 - 2 * t);
const mix = (a: number, b: number, t: number) => a + (b - a) * t;
const clamp = (t: number) => Math.min(1, Math.max(0, t));
const step = (from: number, to: number, x: number) => smooth(clamp((x - from) / (to - from)));

/** A number 0…1 of a lattice point. */
function hash(x: number, y: number, seed: number): number {
  let h = (Math.imul(x, 374761393) + Math.imul(y, 668265263) + Math.imul(seed, 974711)) | 0;
  h = Math.imul(h ^ (h >>> 13), 1274126177);
  return ((h ^ (h >>> 16)) >>> 0) / 4294967296;
}

/** Value noise 0…1 with features of size 1. */
function noise(x: number, y: number, seed: number): number {
  const [i, j] = [Math.floor(x), Math.floor(y)];
  const [s, t] = [smooth(x - i), smooth(y - j)];
  const above = mix(hash(i, j, seed), hash(i + 1, j, seed), s);
  return mix(above, mix(hash(i, j + 1, seed), hash(i + 1, j + 1, seed), s), t);
}

/** Sum of octaves, each half as strong, 0…1. */
function octaves(x: number, y: number, seed: number, count = 5): number {
  let [sum, weight] = [0, 0];
  for (let k = 0; k < count; k++) {
    sum += noise(x * 2 ** k, y * 2 ** k, seed + k) / 2 ** k;
    weight += 1 / 2 ** k;
  }
  return sum / weight;
}

/** Distances to the nearest and the next of points strewn one a cell, and a number of the nearest. */
function cells(x: number, y: number, seed: number): { first: number; second: number; which: number } {
  let [first, second, which] = [9, 9, 0];
  const [i, j] = [Math.floor(x), Math.floor(y)];
  for (let b = j - 1; b <= j + 1; b++) {
    for (let a = i - 1; a <= i + 1; a++) {
      const d = Math.hypot(a + hash(a, b, seed) - x, b + hash(a, b, seed + 1) - y);
      if (d < first) [second, first, which] = [first, d, hash(a, b, seed + 2)];
      else if (d < second) second = d;
    }
  }
  return { first, second, which };
}

const tinted = (value: number, [r, g, b]: [number, number, number]): [number, number, number] => [
  value * r,
  value * g,
  value * b,
];

/** Bricks in running bond, `across` of them along the shorter side. */
function bricks(across: number, joint: [number, number, number], face: [number, number, number]): Surface {
  return (u, v) => {
    const row = Math.floor(v * across * 2.4);
    const x = u * across + (row % 2) / 2;
    const y = v * across * 2.4;
    const [fx, fy] = [x - Math.floor(x), y - row];
    const edge = Math.min(Math.min(fx, 1 - fx) * 2.4, Math.min(fy, 1 - fy));
    const own = 0.8 + 0.4 * hash(Math.floor(x), row, 5);
    const t = step(0.07, 0.12, edge + 0.03 * (noise(u * 90, v * 90, 8) - 0.5));
    const grain = 0.85 + 0.3 * octaves(u * 60, v * 60, 9);
    return [0, 1, 2].map((c) => mix(joint[c], face[c] * own, t) * grain) as [number, number, number];
  };
}

/** Stones with joints between them. */
function stones(across: number, joint: number, stone: number, tint: [number, number, number]): Surface {
  return (u, v) => {
    const { first, second, which } = cells(u * across, v * across, 21);
    const t = step(0.04, 0.14, second - first);
    const grain = 0.8 + 0.4 * octaves(u * 50, v * 50, 3);
    return tinted(mix(joint, stone * (0.75 + 0.5 * which), t) * grain, tint);
  };
}

/** What is photographed: its surface, the light and the turn. */
export interface MadeSource {
  surface: Surface;
  width: number;
  height: number;
  /** Light falls off by this share from one corner to the other. */
  slope?: number;
  turnDegrees?: number;
}

const PHOTO = { width: 800, height: 620 };

/** Twelve photos of kinds that the demo does not have. */
export const MADE_SOURCES: Record<string, MadeSource> = {
  'red bricks with light joints': {
    ...PHOTO,
    surface: bricks(4, [0.42, 0.4, 0.37], [0.25, 0.1, 0.07]),
  },
  'pale bricks with dark joints': {
    ...PHOTO,
    surface: bricks(5, [0.06, 0.055, 0.05], [0.42, 0.36, 0.27]),
    slope: 0.2,
  },
  cobbles: { ...PHOTO, surface: stones(9, 0.06, 0.24, [1, 0.98, 0.94]) },
  'flagstones under slanting light': {
    ...PHOTO,
    surface: stones(5, 0.08, 0.3, [1, 0.93, 0.8]),
    slope: 0.35,
  },
  gravel: {
    ...PHOTO,
    surface: (u, v) => {
      const { first, which } = cells(u * 30, v * 30, 41);
      return tinted((0.1 + 0.35 * which) * (1 - 0.5 * first), [1, 0.97, 0.92]);
    },
  },
  lawn: {
    ...PHOTO,
    surface: (u, v) => {
      const blade = octaves(u * 70 + 3 * noise(u * 9, v * 9, 2), v * 26, 12);
      return tinted(0.03 + 0.12 * blade ** 2, [0.75, 1.1, 0.3]);
    },
  },
  'fine sand': {
    ...PHOTO,
    surface: (u, v) => tinted(0.3 + 0.2 * (octaves(u * 120, v * 120, 4, 3) - 0.5), [1.1, 0.95, 0.7]),
  },
  concrete: {
    ...PHOTO,
    surface: (u, v) =>
      tinted(
        0.3 + 0.1 * (octaves(u * 40, v * 40, 6) - 0.5) - 0.12 * step(0.82, 0.9, noise(u * 60, v * 60, 7)),
        [1, 0.99, 0.96],
      ),
    slope: 0.15,
  },
  'weathered planks': {
    ...PHOTO,
    surface: (u, v) => {
      const plank = Math.floor(u * 6);
      const edge = Math.min(u * 6 - plank, 1 - (u * 6 - plank));
      const grain = octaves(u * 90, v * 5 + 20 * hash(plank, 0, 3), 17);
      const value =
        (0.1 + 0.22 * grain) * (0.8 + 0.4 * hash(plank, 1, 3)) * mix(0.25, 1, step(0.01, 0.04, edge));
      return tinted(value, [1.15, 0.9, 0.62]);
    },
  },
  'woven cloth': {
    ...PHOTO,
    surface: (u, v) => {
      const over = (Math.floor(u * 48) + Math.floor(v * 48)) % 2 === 0;
      const along = over ? u * 48 : v * 48;
      const thread = Math.sin(Math.PI * (along - Math.floor(along)));
      return tinted((0.12 + 0.16 * thread) * (0.9 + 0.2 * octaves(u * 20, v * 20, 31)), [0.8, 0.85, 1.15]);
    },
  },
  'floor tiles turned by 2°': {
    ...PHOTO,
    turnDegrees: 2,
    surface: (u, v) => {
      const [x, y] = [u * 6, v * 6];
      const [fx, fy] = [x - Math.floor(x), y - Math.floor(y)];
      const edge = Math.min(fx, 1 - fx, fy, 1 - fy);
      const own = 0.9 + 0.2 * hash(Math.floor(x), Math.floor(y), 2);
      const value =
        mix(0.09, 0.38 * own, step(0.03, 0.06, edge)) * (0.92 + 0.16 * octaves(u * 40, v * 40, 3));
      return tinted(value, [1, 0.92, 0.8]);
    },
  },
  'rough rock': {
    ...PHOTO,
    surface: (u, v) => {
      const ridges = 1 - Math.abs(2 * octaves(u * 9, v * 9, 51, 6) - 1);
      return tinted(0.06 + 0.3 * ridges ** 2 * (0.7 + 0.6 * octaves(u * 50, v * 50, 2, 3)), [1, 0.95, 0.88]);
    },
  },
};

/** The photo of a surface: four samples a pixel, light, and texture down to the pixel. */
export function photographed({ surface, width, height, slope = 0, turnDegrees = 0 }: MadeSource): Raster {
  const planes = [0, 1, 2].map(() => new Float32Array(width * height));
  const short = Math.min(width, height);
  const [sin, cos] = [Math.sin((turnDegrees * Math.PI) / 180), Math.cos((turnDegrees * Math.PI) / 180)];
  const random = seeded(77);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const sum = [0, 0, 0];
      for (const [dx, dy] of SAMPLES) {
        const [u, v] = [(x + dx) / short, (y + dy) / short];
        const colour = surface(cos * u - sin * v + 3, sin * u + cos * v + 3);
        for (let c = 0; c < 3; c++) sum[c] += colour[c] / SAMPLES.length;
      }
      const light = Math.exp(slope * (x / width + y / height - 1)) * (1 + GRAIN * (random() - 0.5));
      for (let c = 0; c < 3; c++) planes[c][y * width + x] = sum[c] * light;
    }
  }
  return new Raster(width, height, planes);
}

/** Texture as fine as the pixels, relative: a surface seen sharply has some. */
const GRAIN = 0.12;

const SAMPLES = [
  [0.25, 0.25],
  [0.75, 0.25],
  [0.25, 0.75],
  [0.75, 0.75],
];
