import type { MapName } from '@zesty-tile/core';
import { create } from 'zustand';
import type { Lamp, Sun } from './light/rig.ts';
import type { SurroundingsName } from './light/surroundings.ts';
import type { OwnShape } from './own-shape.ts';
import type { ScenePart } from './scene/parts.ts';
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
  'emission',
] as const satisfies readonly MapName[];
export type SillMap = (typeof SILL_MAPS)[number];

/**
 * What the Sill shows: everything lit; relief alone, in the sun's light or in one from the side; what is mirrored alone; what
 * light falls, on white; colour alone; colour beside grey steps; or one map.
 */
export type Show = 'finished' | 'clay' | 'side' | 'sheen' | 'light' | 'unlit' | 'eye' | SillMap;

/** What lies around the shape: a made-up place, or a custom picture by its id. */
export interface Around {
  name: SurroundingsName | `own:${string}`;
  turn: number;
  strength: number;
  /** Whether it is seen behind the shape. */
  background: boolean;
  /** How strong and how blurred it is seen there, 0…1. */
  backStrength: number;
  backBlur: number;
}

/** How the Sill shows depth: by shading alone, by shifted looks at the maps, or by moved triangles. */
export const DEPTHS = ['flat', 'one-step', 'ray-steps', 'true'] as const;
export type Depth = (typeof DEPTHS)[number];

/** What is beside the current tile, in one light: its albedo alone, one of its versions, or another tile. */
export type Beside = { kind: 'albedo' } | { kind: 'version'; number: number } | { kind: 'tile'; id: string };

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
  /** A figure of 1.7 m and a cube of 10 cm are beside the shape. */
  scale: boolean;
  /** The sun goes round slowly. */
  turning: boolean;
  sun: Sun;
  /** How strong the sun is beside what is usual in these surroundings. */
  sunStrength: number;
  /** Lights beside the sun. */
  lamps: Lamp[];
  /** The rig that was put up or kept last, by its id. */
  rig: string;
  /** Which light the disc moves: a lamp by its place, or the sun. */
  chosenLight: number | 'sun';
  show: Show;
  /** By which the surface beside the grey steps is divided, to compare it with its undivided self. */
  matteDivisor: number;
  /** Maps removed from play. */
  off: SillMap[];
  depth: Depth;
  /** Looks along the ray where the surface is seen from straight above, and where it is seen along. */
  few: number;
  many: number;
  /** Projected along three axes in place of the shape's own coordinates, with this sharpness. */
  triplanar: boolean;
  sharpness: number;
  /** Whether opacity cuts out, or lets light through in part. */
  opacityAs: 'cut' | 'see-through';
  bothFaces: boolean;
  /** How strong what the surface gives off is. */
  glow: number;
  beside: Beside | null;
  /** Side by side, or with a line between. */
  split: 'halves' | 'line';
  /** Where the line stands, 0…1. */
  line: number;
  /** Tiles that lie on parts of the scene; on others lies the current tile. */
  laid: Partial<Record<ScenePart, string>>;
  /** Whether it fills the work. */
  grown: boolean;
}

export const useSill = create<SillState>(() => ({
  shape: 'slab',
  own: null,
  around: { name: 'overcast', turn: 0, strength: 1, background: false, backStrength: 1, backBlur: 0.35 },
  exposure: 0,
  tone: 'neutral',
  times: 1,
  scale: false,
  turning: false,
  sun: { turn: 312, rise: 42 },
  sunStrength: 1,
  lamps: [],
  rig: '',
  chosenLight: 'sun',
  show: 'finished',
  matteDivisor: 1,
  off: [],
  depth: 'true',
  few: 10,
  many: 48,
  triplanar: false,
  sharpness: 6,
  opacityAs: 'cut',
  bothFaces: false,
  glow: 1,
  beside: null,
  split: 'halves',
  line: 0.5,
  laid: {},
  grown: false,
}));
