import type { SillState } from '../state.ts';
import type { AroundLight, Direction } from './around.ts';
import { meteredExposure } from './exposure.ts';
import { placeOf } from './rig.ts';

/** Light from the side, for bumps. */
const SIDE_RISE = 9;
/** The sun of a picture whose light holds one already: faint, so that relief is seen. */
const FAINT: Direction = [0.4, 0.4, 0.4];

/** The sun as it is set: towards it, what it usually sends on a surface that faces it, and what it sends now. */
export function sunNow(
  light: AroundLight | null,
  { sun, sunStrength, show }: Pick<SillState, 'sun' | 'sunStrength' | 'show'>,
): { towards: Direction; usual: Direction; sends: Direction } {
  const usual = light?.sun?.irradiance ?? FAINT;
  return {
    towards: placeOf(show === 'side' ? { ...sun, rise: SIDE_RISE } : sun, 1),
    usual,
    sends: usual.map((value) => value * sunStrength) as Direction,
  };
}

/** The exposure that is metered from the light as it is set, and from these surroundings as they usually are. */
export function meteredNow(
  light: AroundLight | null,
  sill: Pick<SillState, 'sun' | 'sunStrength' | 'show' | 'around'>,
): { exposure: number; usual: number } {
  if (!light) return { exposure: 1, usual: 1 };
  const { towards, usual, sends } = sunNow(light, sill);
  const { turn, strength } = sill.around;
  return meteredExposure(light, towards, { turn: (turn * Math.PI) / 180, strength }, sends, usual);
}
