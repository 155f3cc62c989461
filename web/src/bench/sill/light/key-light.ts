import type { SkyLight } from '@zesty-tile/core';
import type * as THREE from 'three';
import type { Direction } from './around.ts';

/** How far from the middle of the view lights are that send parallel light, in its units. */
export const LIGHT_AWAY = 8;

/** The one light that casts shadows, and what it stands for while light is gathered over many frames. */
export interface KeyLight {
  light: THREE.DirectionalLight;
  /** Lights beside it, which cast none. */
  lamps: THREE.DirectionalLight[];
  /** Where the sun stands, what it sends on a surface that faces it, and half of the angle it is seen under, in radians. */
  sun: { towards: Direction; irradiance: Direction; radius: number };
  /** Lights that stand for the sky, as bright as they are set. */
  sky: readonly SkyLight[];
  /** Irradiance from everywhere, and from below alone. */
  harmonics: readonly Direction[];
  below: readonly Direction[];
}

/** Of the Sill that is on the page. */
export const keyLight: { now: KeyLight | null } = { now: null };
