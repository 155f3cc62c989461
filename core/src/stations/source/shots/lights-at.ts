import type { LightVector } from './light.ts';

/** The lights of all shots, as the solution takes them. */
export interface ShotLights {
  /** In the middle of the picture; their lengths are their strengths. */
  vectors: LightVector[];
  /** Even light, where the strength of the first lamp is 1. */
  ambient: number;
  /** How far the lamps are from the middle, in longer edges of the picture; 0 where they are so far that light is parallel. */
  distance: number;
}

/** The lights at a place of the picture, in shares of its longer edge from its middle, `v` down: lamps that are near fall off with the square of distance. */
export function lightsAt({ vectors, distance }: ShotLights, u: number, v: number): LightVector[] {
  if (distance === 0) return vectors;
  return vectors.map(([x, y, z]) => {
    const strength = Math.hypot(x, y, z);
    const reach = distance / strength;
    const [dx, dy, dz] = [x * reach - u, y * reach + v, z * reach];
    const length = Math.hypot(dx, dy, dz);
    const scale = (strength * distance * distance) / length ** 3;
    return [dx * scale, dy * scale, dz * scale];
  });
}
