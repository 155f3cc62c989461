import type { MapName } from '@zesty-tile/core';
import { create } from 'zustand';
import type { Shape } from './shapes.ts';

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

/** What the Sill shows: everything lit, relief alone, colour alone, colour beside grey steps, or one map. */
export type Show = 'finished' | 'clay' | 'unlit' | 'eye' | SillMap;

/** Where the sun stands: clockwise from the top of the view, and its height, in degrees. */
export interface Sun {
  turn: number;
  rise: number;
}

interface SillState {
  shape: Shape;
  sun: Sun;
  show: Show;
  /** Maps taken out of play. */
  off: SillMap[];
  /** Whether it fills the work. */
  grown: boolean;
}

export const useSill = create<SillState>(() => ({
  shape: 'slab',
  sun: { turn: 312, rise: 42 },
  show: 'finished',
  off: [],
  grown: false,
}));
