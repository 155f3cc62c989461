import { irradianceAt, luminanceOf } from '@zesty-tile/core';
import type { AroundLight, Direction } from './around.ts';

/** A card held up to meter the light: it leans half way from the ground to the viewer. */
const CARD: Direction = [0, Math.SQRT1_2, Math.SQRT1_2];
/** Below this share of the usual light it is not metered: the picture stays dark. */
const LEAST = 0.02;

/** Rotates a direction about the upright axis, clockwise seen from above as surroundings are. */
export function turned([x, y, z]: Direction, turn: number): Direction {
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return [c * x - s * z, y, s * x + c * z];
}

/** Luminance that falls on the card: from around times `strength`, from the sun times `sunStrength`. */
function metered(
  light: AroundLight,
  towardsSun: Direction,
  turn: number,
  strength: number,
  sun: Direction,
): number {
  const around = luminanceOf(...irradianceAt(light.harmonics, turned(CARD, turn)));
  const facing = Math.max(
    0,
    CARD.reduce((sum, value, k) => sum + value * towardsSun[k], 0),
  );
  return strength * around + facing * luminanceOf(...sun);
}

/**
 * By which light is multiplied so that a surface that leans to the viewer looks as bright as its albedo, as a light meter held
 * at the surface sets a camera: it follows the light, never the picture, so a dark tile stays dark.
 */
export function meteredExposure(
  light: AroundLight,
  towardsSun: Direction,
  { turn, strength }: { turn: number; strength: number },
  sun: Direction,
  usualSun: Direction,
): { exposure: number; usual: number } {
  const usual = metered(light, towardsSun, turn, 1, usualSun);
  const now = metered(light, towardsSun, turn, strength, sun);
  return { exposure: Math.PI / Math.max(now, LEAST * usual, 1e-6), usual: Math.PI / Math.max(usual, 1e-6) };
}
