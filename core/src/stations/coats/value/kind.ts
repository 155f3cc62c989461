import type { SettingsOf, Values } from '../../../settings/kinds.ts';
import type { SurfaceChannel } from '../../../surface/surface.ts';
import type { PictureRef } from '../../../tile/given.ts';
import type { Above } from '../blend/over.ts';
import type { Channel, Layers } from '../layers.ts';
import type { Scene } from '../scene.ts';

/**
 * What a coat puts into a channel: a colour (linear RGB) where the channel's values are colours, else values 0..1, or mm; and
 * where it has something, 0..1, which is everywhere where that is left out.
 */
export type Value = ({ kind: 'colour'; of: Above } | { kind: 'single'; of: SurfaceChannel }) & {
  cover?: Float32Array;
  /** Its planes belong to whoever asked, and may be given back. */
  isOwn?: boolean;
};

/** One way of saying what is put into a channel. */
export interface ValueKind<S extends SettingsOf = SettingsOf> {
  title: string;
  /** The channels it has something for. */
  channels: readonly Channel[];
  settings: S;
  /** Pictures it refers to, by what each is for. */
  pictures?(given: Values<S>): Record<string, PictureRef>;
  /** What of the layers below it is made from. */
  reads(given: Values<S>): readonly (keyof Layers)[];
  /** Null where there is nothing to put in. */
  value(given: Values<S>, channel: Channel, scene: Scene): Promise<Value | null>;
}

export const valueKind = <const S extends SettingsOf>(kind: ValueKind<S>): ValueKind<S> => kind;

/** A single value for a channel, as a grey where its values are colours. */
export function singleValue(channel: Channel, value: number): Value {
  const isColour = channel === 'colour' || channel === 'emission' || channel === 'f0';
  return isColour ? { kind: 'colour', of: [value, value, value] } : { kind: 'single', of: value };
}
