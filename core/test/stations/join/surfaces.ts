import { Raster } from '@zesty-tile/core';
import { noisePlane, planeOf, seeded } from '../../fields.ts';

/** Uneven light over a photo: a slope across and down. */
const light = (u: number, v: number) => (0.75 + 0.5 * u) * (1.1 - 0.25 * v);

interface Regular {
  /** Size of a cell in pixels. */
  across: number;
  down: number;
  turnDegrees: number;
  /** Every second row moved by half a cell. */
  bond?: boolean;
  /** Already evenly lit. */
  even?: boolean;
}

/** A wall of blocks, each in its own tone, with dark joints, slanted, unevenly lit, with three percent of noise. */
export function wall(size: number, { across, down, turnDegrees, bond, even }: Regular, seed = 3): Raster {
  const tones = noisePlane(4096, seed);
  const noise = noisePlane(size * size, seed + 1);
  const turn = (turnDegrees * Math.PI) / 180;
  const plane = planeOf(size, size, (x, y) => {
    const b = (-Math.sin(turn) * x + Math.cos(turn) * y) / down;
    const row = Math.floor(b);
    const a = (Math.cos(turn) * x + Math.sin(turn) * y) / across + (bond && row % 2 !== 0 ? 0.5 : 0);
    const tone = tones[(((Math.floor(a) * 37 + row * 91) % 4096) + 4096) % 4096];
    const joint = a - Math.floor(a) < 0.07 || b - row < 0.09;
    const value = (joint ? 0.2 : 0.5 + 0.1 * (tone - 0.5)) * (even ? 1 : light(x / size, y / size));
    return value + 0.1 * (noise[y * size + x] - 0.5);
  });
  return new Raster(size, size, [plane, plane, plane]);
}

/** Boards that run down the picture: periodic across, endless along. */
export function boards(size: number, width: number, turnDegrees: number): Raster {
  const tones = noisePlane(256, 8);
  const noise = noisePlane(size * size, 9);
  const turn = (turnDegrees * Math.PI) / 180;
  const plane = planeOf(size, size, (x, y) => {
    const a = (Math.cos(turn) * x + Math.sin(turn) * y) / width;
    const tone = tones[((Math.floor(a) % 256) + 256) % 256];
    return (a - Math.floor(a) < 0.08 ? 0.2 : 0.5 + 0.08 * tone) + 0.06 * (noise[y * size + x] - 0.5);
  });
  return new Raster(size, size, [plane, plane, plane]);
}

/** Rows of crests that wander and do not meet: the crest lines of a slow random field. */
export function crests(width: number, height: number, spacing: number, seed = 2): Raster {
  const random = seeded(seed);
  const waves = Array.from({ length: 8 }, () => ({
    fx: (0.4 + 2 * random()) / height,
    fy: (0.2 + 1.5 * random()) / height,
    phase: 6.28 * random(),
  }));
  const noise = noisePlane(width * height, seed + 5);
  const plane = planeOf(width, height, (x, y) => {
    let bow = 0;
    for (const { fx, fy, phase } of waves) bow += 0.12 * Math.sin(6.283 * (fx * x + fy * y) + phase);
    return 0.4 + 0.25 * Math.sin((6.283 * y) / spacing + 2 * bow) + 0.05 * (noise[y * width + x] - 0.5);
  });
  return new Raster(width, height, [plane, plane, plane]);
}

/** Fine grain without structure. */
export function grain(size: number, seed = 4): Raster {
  const plane = noisePlane(size * size, seed);
  const soft = planeOf(size, size, (x, y) => {
    let sum = 0;
    for (let j = -1; j <= 1; j++) {
      for (let i = -1; i <= 1; i++) {
        sum += plane[((y + j + size) % size) * size + ((x + i + size) % size)];
      }
    }
    return 0.2 + 0.5 * (sum / 9);
  });
  return new Raster(size, size, [soft, soft, soft]);
}

/** Smooth tone that differs from edge to edge, as in a painted source. */
export function smooth(size: number): Raster {
  const planes = [0, 1, 2].map((c) =>
    planeOf(size, size, (x, y) => {
      const [u, v] = [x / size, y / size];
      return 0.3 + 0.15 * Math.sin(2.1 * u + c) + 0.12 * Math.cos(1.7 * v - c) + 0.05 * u * v;
    }),
  );
  return new Raster(size, size, planes);
}
