import { luminanceOf } from '../../colour/luminance-of.ts';
import type { Triple } from '../shade.ts';
import { evenPoint } from './even.ts';
import { directionOf, halvedPanorama, type Panorama, solidAngleOf } from './panorama.ts';

/** One light far away. Over all of them the mean irradiance is what the sky sends. */
export interface SkyLight {
  towards: Triple;
  /** On a surface that faces it; linear sRGB. */
  irradiance: Triple;
}

/** Width at which a panorama is looked at for lights. */
const WIDTH = 64;

/**
 * Lights that together stand for the upper half of a panorama: directions are drawn by how bright the sky is there, so each
 * sends about as much (Agarwal et al. 2003). Always the same ones.
 */
export function skyLights(panorama: Panorama, count: number): SkyLight[] {
  let small = panorama;
  while (small.width > WIDTH) small = halvedPanorama(small);
  const { width, height, rgb } = small;
  const first = height / 2;
  const at = (x: number, y: number): Triple => {
    const k = 3 * (y * width + x);
    return [rgb[k], rgb[k + 1], rgb[k + 2]];
  };
  const rows: number[] = [];
  const columns: number[][] = [];
  for (let y = first; y < height; y++) {
    const share = solidAngleOf(y, small);
    let sum = 0;
    columns.push(
      Array.from({ length: width }, (_, x) => {
        sum += share * (luminanceOf(...at(x, y)) + 1e-6);
        return sum;
      }),
    );
    rows.push((rows[rows.length - 1] ?? 0) + sum);
  }
  const whole = rows[rows.length - 1];
  /** Where a running sum passes a value, and how far into that step. */
  const find = (sums: readonly number[], value: number): number => {
    const found = sums.findIndex((sum) => sum > value);
    return found < 0 ? sums.length - 1 : found;
  };
  return Array.from({ length: count }, (_, k) => {
    const [u, v] = evenPoint(k + 1);
    const row = find(rows, u * whole);
    const column = find(columns[row], v * columns[row][width - 1]);
    const seen = at(column, first + row);
    const towards = directionOf(column, first + row, small);
    // The density of directions is the sky's luminance over the whole.
    const by = whole / (luminanceOf(...seen) + 1e-6);
    return { towards, irradiance: seen.map((value) => value * by) as Triple };
  });
}
