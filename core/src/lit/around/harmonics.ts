import type { Triple } from '../shade.ts';
import { directionOf, type Panorama, solidAngleOf } from './panorama.ts';

/** Spherical harmonics of the first three bands in a direction. */
function basisAt([x, y, z]: Triple): number[] {
  return [
    0.282095,
    0.488603 * y,
    0.488603 * z,
    0.488603 * x,
    1.092548 * x * y,
    1.092548 * y * z,
    0.315392 * (3 * z * z - 1),
    1.092548 * x * z,
    0.546274 * (x * x - y * y),
  ];
}

/** How much of each band a matte surface keeps. */
const KEPT = [Math.PI, ...Array(3).fill((2 * Math.PI) / 3), ...Array(5).fill(Math.PI / 4)] as number[];

/**
 * Irradiance of a panorama as nine coefficients per channel, so that it is known for every normal at once (Ramamoorthi &
 * Hanrahan 2001). Only directions whose y is at most `highest` count: 0 leaves the lower half.
 */
export function irradianceHarmonics(panorama: Panorama, highest = 1): Triple[] {
  const { width, height, rgb } = panorama;
  const out = Array.from({ length: 9 }, (): Triple => [0, 0, 0]);
  for (let y = 0; y < height; y++) {
    const share = solidAngleOf(y, panorama);
    for (let x = 0; x < width; x++) {
      const towards = directionOf(x, y, panorama);
      if (towards[1] > highest) continue;
      const basis = basisAt(towards);
      for (let k = 0; k < 9; k++) {
        const weight = share * basis[k] * KEPT[k];
        for (let c = 0; c < 3; c++) out[k][c] += weight * rgb[3 * (y * width + x) + c];
      }
    }
  }
  return out;
}

/** Irradiance on a surface with a unit normal, never negative. */
export function irradianceAt(harmonics: readonly Triple[], normal: Triple): Triple {
  const basis = basisAt(normal);
  return [0, 1, 2].map((c) =>
    Math.max(
      0,
      basis.reduce((sum, value, k) => sum + value * harmonics[k][c], 0),
    ),
  ) as Triple;
}
