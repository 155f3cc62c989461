import { gaussian, Raster, TORUS } from '@zesty-tile/core';
import { noisePlane, planeOf, seeded } from '../core/test/fields.ts';
import { boards, crests, grain, smooth, wall } from '../core/test/stations/join/surfaces.ts';

type Colour = [number, number, number];

/** Discs of many sizes, each in its own tone, one over the other: gravel, or leaves when they are long. */
function strewn(size: number, count: number, radius: [number, number], long: number, seed: number): Raster {
  const random = seeded(seed);
  const planes = [0, 1, 2].map(() => new Float32Array(size * size).fill(0.08));
  for (let k = 0; k < count; k++) {
    const [cx, cy] = [random() * size, random() * size];
    const r = (radius[0] + (radius[1] - radius[0]) * random()) * size;
    const turn = Math.PI * random();
    const tone = 0.2 + 0.35 * random();
    const tint: Colour = [tone * (1 + 0.15 * random()), tone, tone * (1 - 0.25 * random())];
    const far = Math.ceil(r * long);
    for (let y = Math.max(0, Math.floor(cy - far)); y < Math.min(size, cy + far); y++) {
      for (let x = Math.max(0, Math.floor(cx - far)); x < Math.min(size, cx + far); x++) {
        const a = ((x - cx) * Math.cos(turn) + (y - cy) * Math.sin(turn)) / (r * long);
        const b = (-(x - cx) * Math.sin(turn) + (y - cy) * Math.cos(turn)) / r;
        const d = a * a + b * b;
        if (d > 1) continue;
        planes.forEach((plane, c) => {
          plane[y * size + x] = tint[c] * (1 - 0.4 * d);
        });
      }
    }
  }
  const noise = noisePlane(size * size, seed + 9);
  return new Raster(
    size,
    size,
    planes.map((p) => p.map((v, i) => v + 0.04 * (noise[i] - 0.5))),
  );
}

/** Threads over and under each other. */
function weave(size: number, thread: number): Raster {
  const noise = noisePlane(size * size, 12);
  const plane = planeOf(size, size, (x, y) => {
    const [i, j] = [Math.floor(x / thread), Math.floor(y / thread)];
    const over = (i + j) % 2 === 0;
    const t = over ? (y % thread) / thread : (x % thread) / thread;
    return 0.2 + 0.3 * Math.sin(Math.PI * t) * (over ? 1 : 0.8) + 0.05 * (noise[y * size + x] - 0.5);
  });
  return new Raster(size, size, [plane, plane.map((v) => 0.9 * v), plane.map((v) => 0.7 * v)]);
}

/** Two surfaces side by side, which no tile can bring together. */
function halves(size: number): Raster {
  const left = strewn(size, 900, [0.01, 0.03], 1, 5);
  const right = wall(size, { across: 80, down: 40, turnDegrees: 0, bond: true, even: true });
  return left.mapPlanes((plane, c) => plane.map((v, i) => (i % size < size / 2 ? v : right.planes[c][i])));
}

/** One bright motif on quiet grain. */
function motif(size: number): Raster {
  const base = grain(size, 11);
  return base.mapPlanes((plane) =>
    plane.map((v, i) => {
      const d = Math.hypot((i % size) - 0.97 * size, Math.floor(i / size) - 0.5 * size) / size;
      return d < 0.2 ? 0.8 - d : v;
    }),
  );
}

/** Soft clouds of tone, as in plaster. */
function clouds(size: number): Raster {
  const noise = noisePlane(size * size, 21);
  const [fine, broad] = [1.2, 14].map((sigma) => gaussian(noise, size, size, sigma, TORUS));
  const plane = fine.map((v, i) => 0.45 + 0.25 * (v - 0.5) + 2.2 * (broad[i] - 0.5));
  // The noise itself repeats: only a part of it is shown, which does not.
  const part = new Raster(size, size, [plane, plane, plane.map((v) => 0.92 * v)]);
  return part;
}

/** Made-up surfaces of known kind, `size` pixels wide. */
export const KINDS: Record<string, (size: number) => Raster> = {
  'bonded wall': (n) => wall(n, { across: 101.3, down: 50.7, turnDegrees: 0, bond: true, even: true }),
  'slanted slabs': (n) => wall(n, { across: 84.6, down: 84.6, turnDegrees: 2, even: true }),
  boards: (n) => boards(n, 73.4, 0),
  weave: (n) => weave(n, 17),
  gravel: (n) => strewn(n, 2600, [0.01, 0.035], 1, 3),
  leaves: (n) => strewn(n, 900, [0.015, 0.03], 3, 4),
  crests: (n) => crests(n, n, 47),
  'fine grain': (n) => grain(n),
  clouds,
  'smooth paint': smooth,
  'two halves': halves,
  'one motif': motif,
};
