import type { Triple } from '../shade.ts';
import { directionOf, type Panorama, solidAngleOf } from './panorama.ts';

/** A light far away that is seen as a disc. */
export interface DistantDisc {
  /** A unit vector. */
  towards: Triple;
  /** What it sends on a surface that faces it, linear. */
  irradiance: Triple;
  /** Half of the angle it is seen under, in radians. */
  radius: number;
}

/** Points of a pixel, to a side, at which it is asked whether it lies in a disc. */
const POINTS = 4;

/** Share of a pixel that lies within a disc. */
function shareWithin(x: number, y: number, sides: Omit<Panorama, 'rgb'>, { towards, radius }: DistantDisc) {
  const least = Math.cos(radius);
  let within = 0;
  for (let k = 0; k < POINTS * POINTS; k++) {
    const [i, j] = [k % POINTS, Math.floor(k / POINTS)];
    const at = directionOf(x + (i + 0.5) / POINTS - 0.5, y + (j + 0.5) / POINTS - 0.5, sides);
    if (at[0] * towards[0] + at[1] * towards[1] + at[2] * towards[2] >= least) within++;
  }
  return within / (POINTS * POINTS);
}

/**
 * Adds lights to a picture of what is seen all round, as discs of even radiance that send exactly their irradiance on a surface
 * that faces them. A disc smaller than a pixel is widened to one.
 */
export function withDiscs(panorama: Panorama, discs: readonly DistantDisc[]): Panorama {
  const { width, height } = panorama;
  const rgb = panorama.rgb.slice();
  for (const disc of discs) {
    const { towards, irradiance } = disc;
    const radius = Math.max(disc.radius, (2 * Math.PI) / width);
    const rise = Math.asin(Math.min(1, Math.max(-1, towards[1])));
    const rowOf = (angle: number) => Math.floor((angle / Math.PI + 0.5) * height);
    const found: [number, number][] = [];
    let sent = 0;
    for (
      let y = Math.max(0, rowOf(rise - radius) - 1);
      y <= Math.min(height - 1, rowOf(rise + radius) + 1);
      y++
    ) {
      const angle = solidAngleOf(y, panorama);
      for (let x = 0; x < width; x++) {
        const share = shareWithin(x, y, panorama, { ...disc, radius });
        if (share === 0) continue;
        const at = directionOf(x, y, panorama);
        const facing = at[0] * towards[0] + at[1] * towards[1] + at[2] * towards[2];
        sent += share * angle * facing;
        found.push([y * width + x, share]);
      }
    }
    for (const [i, share] of found)
      for (let c = 0; c < 3; c++) rgb[3 * i + c] += (irradiance[c] * share) / sent;
  }
  return { width, height, rgb };
}
