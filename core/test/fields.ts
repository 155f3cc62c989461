import { type Edges, Raster } from '@zesty-tile/core';

/** A seeded stream of numbers 0..1 (mulberry32). */
export function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** White noise 0..1. */
export function noisePlane(count: number, seed = 1): Float32Array {
  const random = seeded(seed);
  return Float32Array.from({ length: count }, random);
}

/** A plane from a function of the pixel. */
export function planeOf(width: number, height: number, at: (x: number, y: number) => number): Float32Array {
  return Float32Array.from({ length: width * height }, (_, i) => at(i % width, Math.floor(i / width)));
}

/** A colour picture that repeats: sums of a few whole waves and grain, values about 0.1..0.6. */
export function tilingPicture(size: number, seed = 3): Raster {
  const random = seeded(seed);
  const waves = Array.from({ length: 6 }, () => ({
    fx: Math.floor(random() * 5),
    fy: Math.floor(random() * 5) + 1,
    phase: random() * 6.28,
  }));
  const planes = [0, 1, 2].map((c) =>
    planeOf(size, size, (x, y) => {
      let v = 0.35 + 0.03 * c;
      for (const { fx, fy, phase } of waves) {
        v += 0.03 * Math.sin((2 * Math.PI * (fx * x + fy * y)) / size + phase + 0.3 * c);
      }
      return v + 0.04 * Math.sin((2 * Math.PI * 31 * x) / size) * Math.cos((2 * Math.PI * 27 * y) / size);
    }),
  );
  return new Raster(size, size, planes);
}

/** Largest absolute difference of two planes. */
export function farthest(a: ArrayLike<number>, b: ArrayLike<number>): number {
  let most = 0;
  for (let i = 0; i < a.length; i++) {
    const d = Math.abs(a[i] - b[i]);
    if (!(d <= most)) most = d;
  }
  return a.length === b.length ? most : Number.POSITIVE_INFINITY;
}

/** RMS difference of two planes. */
export function rmsBetween(a: ArrayLike<number>, b: ArrayLike<number>): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += (a[i] - b[i]) ** 2;
  return Math.sqrt(sum / a.length);
}

export const ALL_EDGES: Edges[] = [
  { x: 'wrap', y: 'wrap' },
  { x: 'wrap', y: 'mirror' },
  { x: 'mirror', y: 'wrap' },
  { x: 'mirror', y: 'mirror' },
];

/** Correlation of two planes. */
export function correlation(a: ArrayLike<number>, b: ArrayLike<number>): number {
  const mean = (p: ArrayLike<number>) => {
    let sum = 0;
    for (let i = 0; i < p.length; i++) sum += p[i];
    return sum / p.length;
  };
  const [ma, mb] = [mean(a), mean(b)];
  let [ab, aa, bb] = [0, 0, 0];
  for (let i = 0; i < a.length; i++) {
    ab += (a[i] - ma) * (b[i] - mb);
    aa += (a[i] - ma) ** 2;
    bb += (b[i] - mb) ** 2;
  }
  return ab / Math.sqrt(aa * bb);
}
