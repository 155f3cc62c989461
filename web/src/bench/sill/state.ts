import type { MapName } from '@zesty-tile/core';
import { create } from 'zustand';
import type { OwnShape } from './own-shape.ts';
import type { Shape } from './shapes.ts';
import type { SurroundingsName } from './surroundings.ts';

/** Maps that light falls through, and that can be looked at alone. */
export const SILL_MAPS = [
  'albedo',
  'normal',
  'height',
  'occlusion',
  'roughness',
  'metallic',
  'specular',
  'opacity',
] as const satisfies readonly MapName[];
export type SillMap = (typeof SILL_MAPS)[number];

/**
 * What the Sill shows: everything lit; relief alone, in the sun's light or in one from the side; what is mirrored alone; what
 * light falls, on white; colour alone; colour beside grey steps; or one map.
 */
export type Show = 'finished' | 'clay' | 'side' | 'sheen' | 'light' | 'unlit' | 'eye' | SillMap;

/** Where the sun stands: clockwise from the top of the view, and its height, in degrees. */
export interface Sun {
  turn: number;
  rise: number;
}

/** What lies around the shape, and how its light is turned and how strong it is. */
export interface Around {
  name: SurroundingsName;
  turn: number;
  strength: number;
  /** Whether it is seen behind the shape. */
  background: boolean;
}

interface SillState {
  shape: Shape;
  /** A shape from a file, where one was given. */
  own: OwnShape | null;
  around: Around;
  /** In stops. */
  exposure: number;
  /** How bright light is brought into the screen's range: softly, or cut off. */
  tone: 'neutral' | 'plain';
  /** How often the tile goes over the shape, beside its own number. */
  times: number;
  /** The sun goes round slowly. */
  turning: boolean;
  sun: Sun;
  show: Show;
  /** Maps taken out of play. */
  off: SillMap[];
  /** Whether it fills the work. */
  grown: boolean;
}

export const useSill = create<SillState>(() => ({
  shape: 'slab',
  own: null,
  around: { name: 'overcast', turn: 0, strength: 1, background: false },
  exposure: 0,
  tone: 'neutral',
  times: 1,
  turning: false,
  sun: { turn: 312, rise: 42 },
  show: 'finished',
  off: [],
  grown: false,
}));
