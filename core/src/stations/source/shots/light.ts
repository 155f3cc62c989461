import type { Vector3 } from '../../../algebra/vectors.ts';

/** Where light comes from: clockwise from the top of the picture, and its height above the surface, in degrees. */
export interface LightDirection {
  azimuth: number;
  height: number;
}

/** A light as the solution takes it: x to the right, y up in the picture, z out of it; its length is its strength. */
export type LightVector = Vector3;

const RADIANS = Math.PI / 180;

/** The unit vector towards a light. */
export function vectorOf({ azimuth, height }: LightDirection): LightVector {
  const [a, h] = [azimuth * RADIANS, height * RADIANS];
  return [Math.sin(a) * Math.cos(h), Math.cos(a) * Math.cos(h), Math.sin(h)];
}

/** The direction of a light vector of any length. */
export function directionOf([x, y, z]: LightVector): LightDirection {
  return {
    azimuth: (((Math.atan2(x, y) / RADIANS) % 360) + 360) % 360,
    height: Math.atan2(z, Math.hypot(x, y)) / RADIANS,
  };
}
