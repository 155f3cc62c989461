import type { DrawRows } from '../../../raster/rows.ts';
import { choice, flag, number, type SettingsOf, type Values } from '../../../settings/kinds.ts';
import type { SurfaceChannel } from '../../../surface/surface.ts';
import type { Frame } from '../../../tile/frame.ts';
import type { PictureRef } from '../../../tile/given.ts';
import type { Layers } from '../layers.ts';
import type { Scene } from '../scene.ts';

/** What every part of a mask has, whatever it is selected by. */
export const COMMON = {
  how: choice({
    label: 'Combined by',
    help: 'and: within what the parts before it select. or: in addition to it. without: taken away from it. Of the first part it has no effect.',
    default: 'and',
    options: ['and', 'or', 'without'],
    names: ['And', 'Or', 'Without'],
  }),
  low: number({
    label: 'Low',
    help: 'Values up to it select nothing.',
    default: 0,
    min: 0,
    max: 1,
    step: 0.01,
    unit: '',
  }),
  high: number({
    label: 'High',
    help: 'Values from it on are selected wholly. Below Low, what is dark is selected.',
    default: 1,
    min: 0,
    max: 1,
    step: 0.01,
    unit: '',
  }),
  softness: number({
    label: 'Softness',
    help: 'How gradually values between Low and High are selected; 0 is a step half-way between them.',
    default: 1,
    min: 0,
    max: 1,
    step: 0.05,
    unit: '',
  }),
  invert: flag({ label: 'Invert', help: 'Selects what would not be selected.', default: false }),
  blurMm: number({
    label: 'Blur',
    help: 'How far its edges are blurred.',
    default: 0,
    min: 0,
    max: 500,
    step: 0.5,
    unit: 'mm',
  }),
};
export type Common = Values<typeof COMMON>;

/** One way of selecting a part of the tile. */
export interface PartKind<S extends SettingsOf = SettingsOf> {
  title: string;
  /** Its own settings, beside those that all parts have. */
  settings: S;
  /** Pictures it refers to, by what each is for. */
  pictures?(part: Values<S>): Record<string, PictureRef>;
  /**
   * Values 0..1 before its levels: one for the whole tile, or one each pixel. The plane belongs to whoever asked. `before` is
   * what the parts before it select. It need not be there where `rows` always is.
   */
  values?(part: Values<S>, scene: Scene, before: SurfaceChannel): Promise<SurfaceChannel>;
  /** Writes rows of those values, where they follow from its settings and the tile alone: threads then share them. */
  rows?(part: Values<S>, frame: Frame): DrawRows | null;
  /** Values 0..1 of another kind that it has beside those it selects by, for what is driven by it; by name. */
  planes?: Record<string, (part: Values<S>, scene: Scene, before: SurfaceChannel) => Promise<SurfaceChannel>>;
  /** Whether it stands in the place of the parts before it, because it is made of what they select. */
  replacesBefore?(part: Values<S>): boolean;
  /** What of the layers below it follows from; while that stays, so does what it selects. */
  reads(part: Values<S>): readonly (keyof Layers)[];
}

export const partKind = <const S extends SettingsOf>(kind: PartKind<S>): PartKind<S> => kind;
