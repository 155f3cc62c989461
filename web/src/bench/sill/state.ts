import type { AroundName, MapName } from '@zesty-tile/core';
import { create } from 'zustand';
import type { Lamp, Sun } from './light/rig.ts';
import type { DistanceName, LookoutName } from './lookouts.ts';
import type { OwnShape } from './own-shape.ts';
import type { Laid } from './scene/laying.ts';
import type { ScenePart } from './scene/parts.ts';
import type { Shape } from './shapes.ts';
import type { StillLight } from './still/choices.ts';

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
  name: AroundName | `own:${string}`;
  turn: number;
  strength: number;
  /** Whether it is seen behind the shape. */
  background: boolean;
  /** How strong and how blurred it is seen there, 0…1. */
  backStrength: number;
  backBlur: number;
}

/** Softly with colours kept, as film does, or cut off. */
export type Tone = 'neutral' | 'filmic' | 'plain';

/** How the Sill shows depth: by shading alone, by shifted looks at the maps, or by moved triangles. */
export const DEPTHS = ['flat', 'one-step', 'ray-steps', 'true'] as const;
export type Depth = (typeof DEPTHS)[number];

/** What is beside the current tile, in one light: its albedo alone, itself without one of its maps, one of its versions, or another tile. */
export type Beside =
  | { kind: 'albedo' }
  | { kind: 'without'; map: SillMap }
  | { kind: 'version'; number: number }
  | { kind: 'tile'; id: string };

export interface SillState {
  shape: Shape;
  /** A shape from a file, where one was given. */
  own: OwnShape | null;
  around: Around;
  /** In stops, beside what is metered or locked. */
  exposure: number;
  /** By what the light that falls is multiplied once that is locked; null while it is metered. */
  exposureLock: number | null;
  /** How bright light is brought into the screen's range. */
  tone: Tone;
  /** Whether what is seen hides the sky while something moves: where there is time for it, or always. */
  corners: 'fast' | 'always';
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
  /** How finely maps are filtered along the look: as finely as is possible, or as games do. */
  filtering: 'fine' | 'game';
  /** How strong what the surface gives off is. */
  glow: number;
  beside: Beside | null;
  /** Side by side, or with a line between. */
  split: 'halves' | 'line';
  /** Where the line stands, 0…1. */
  line: number;
  /** What is on parts of the scene where that is not the usual, and the part that is changed. */
  laid: Laid;
  part: ScenePart;
  /** From where the scene, and the open ground, are looked at. */
  lookout: LookoutName;
  distance: DistanceName;
  /** Counts up when what is chosen is pressed again, to be looked at as at first. */
  returns: number;
  /** Whether a still of a place shows its sky, how a still is lit, and its file. */
  stillSky: boolean;
  stillLight: StillLight;
  stillFormat: 'png' | 'exr';
  /** Whether it fills the work. */
  grown: boolean;
}

export const useSill = create<SillState>(() => ({
  shape: 'slab',
  own: null,
  around: { name: 'terrace', turn: 0, strength: 1, background: false, backStrength: 1, backBlur: 0.35 },
  exposure: 0,
  exposureLock: null,
  tone: 'neutral',
  corners: 'fast',
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
  filtering: 'fine',
  beside: null,
  split: 'halves',
  line: 0.5,
  laid: {},
  part: 'floor',
  lookout: 'overview',
  distance: 'near',
  returns: 0,
  stillSky: true,
  stillLight: { isTraced: false, samples: 48 },
  stillFormat: 'png',
  grown: false,
}));

/** Looks at what is chosen as at first, after the viewer was moved by hand. */
export const returnViewer = (): void => useSill.setState(({ returns }) => ({ returns: returns + 1 }));
