import * as v from 'valibot';
import type { Mask } from '../masks/mask.ts';
import type { Pixels, SourceRef } from '../pixels/pixels.ts';
import type { SettingsOf, Values } from '../settings/kinds.ts';
import type { WorkContext } from '../team/context.ts';
import type { Frame } from '../tile/frame.ts';
import type { PictureRef } from '../tile/given.ts';
import type { Verdict } from '../verdict.ts';
import type { View } from './view.ts';

/** Where a station may read pictures from: the host of the engine. */
export interface PictureReader {
  /** Samples of a picture, reduced so that its shorter side still has `shortEdge` pixels. */
  pixels(source: SourceRef, shortEdge: number, kind: 'colour' | 'data'): Promise<Pixels>;
}

/** How a station reads pictures from outside, where it reads no station. */
export interface Loading<S extends SettingsOf, Input> {
  /** What the result depends on of the picture and of how far it is reduced. */
  key(source: SourceRef, frame: Frame): string[];
  load(source: SourceRef, settings: Values<S>, frame: Frame, reader: PictureReader): Promise<Input>;
  /** Pixels that the shorter side of the photo keeps for what is settled, whatever the crop. */
  decidesAt: number;
}

/** A part of an output that takes long and is made only where something asks for it. */
export type OptionalPart = `${string}.${string}`;

/**
 * One step of the work. `Input` is what it reads (outputs of earlier stations), `Decided` what is
 * settled once at the working size and replayed at every size, `Output` what it makes.
 */
export interface Station<S extends SettingsOf, Input, Decided, Output> {
  /** The name it has in recipes, and in the list of stations. */
  name: string;
  /** One line: what the station is for. */
  line: string;
  settings: S;

  /** The stations whose outputs it reads. */
  reads: readonly AnyStation[];
  /** The stations its decision is made from, where they are not those it reads. */
  decidesFrom?: readonly AnyStation[];
  /** Whether one of them is read with these settings, where that depends on them. */
  isRead?(name: string, settings: Values<S>, masks: readonly Mask[]): boolean;
  /** How pictures are read, by the station that comes first. */
  loading?: Loading<S, Input>;
  /** Pictures its settings refer to beside the source, by what each is for. */
  pictures?(settings: Values<S>): Record<string, PictureRef | null | undefined>;
  /**
   * Parts of its output that may be left out, by name: `omit` of its input lists those that are. `ofPhoto`: it needs
   * what is before the tile.
   */
  optional?: Record<string, { ofPhoto: boolean }>;
  /** Optional parts of other stations that it needs with these settings, as `join.before`. */
  demands?(settings: Values<S>, masks: readonly Mask[]): OptionalPart[];

  /** Facts it adds to the frame; `size` is the longer edge that is made now, null for the wanted one. */
  setsFrame?(settings: Values<S>, source: SourceRef, size: number | null): Partial<Frame>;
  /** What its result depends on of the frame, beside the size. */
  frameFacts?(frame: Frame): unknown;
  /** Whether it hands on what it reads as it is with these settings: its key is then that of what it reads. */
  handsOn?(settings: Values<S>): boolean;
  /** Its settings as far as its result depends on them; all of them where that is left out. */
  cacheKey?(settings: Values<S>, masks: readonly Mask[]): unknown;
  /** The masks its result depends on. */
  usedMasks?(settings: Values<S>, masks: readonly Mask[]): readonly Mask[];

  /** Pictures it can show of its work, by name. */
  views?: Record<string, View>;
  /** The view or map that shows what it made. */
  shows: string;
  /** The view or map to work on when it is opened, where that is not what it made. */
  worksOn?: string;

  /** Share of the work it usually takes, for an honest progress bar. */
  weight: number;
  /** Whether its result is of the photo or of the tile: of a set the photo's are released early. */
  of: 'photo' | 'tile';
  /** Measured on the maps alone, so that of a set all maps are made first. */
  measuredLast?: true;
  /** An earlier output of the photo that its own replaces, where nothing asks for the optional part `unless`. */
  replaces?: { station: AnyStation; unless: OptionalPart; output(earlier: never, own: Output): unknown };

  /** The shape of `Decided` as it is stored in a recipe. */
  decision: v.GenericSchema<Decided>;
  /** What the decision depends on, apart from the input: a dial not named here does not settle it again. Undefined where there is nothing to settle. */
  decidesOn(settings: Values<S>, frame: Frame): unknown;
  /** Settles at the working size what must not depend on the output size. JSON data. */
  decide(input: Input, settings: Values<S>, frame: Frame, context: WorkContext): Promise<Decided> | Decided;
  run(
    input: Input,
    settings: Values<S>,
    decided: Decided,
    frame: Frame,
    context: WorkContext,
  ): Promise<Output>;
  /** Measured on the result. */
  verdict(
    output: Output,
    input: Input,
    settings: Values<S>,
    decided: Decided,
    frame: Frame,
    context: WorkContext,
  ): Verdict | Promise<Verdict>;
}

// biome-ignore lint/suspicious/noExplicitAny: the engine handles all stations alike
export type AnyStation = Station<any, any, any, any>;

/** Keeps the type parameters of a station. */
export function station<
  const N extends string,
  S extends SettingsOf,
  I,
  D,
  O,
  const V extends string = never,
>(
  definition: Station<S, I, D, O> & { name: N; views?: Record<V, View> },
): Station<S, I, D, O> & { name: N; views?: Record<V, View> } {
  return definition;
}

/** For stations with nothing to settle. */
export const NOTHING_TO_DECIDE = { decision: v.null(), decidesOn: () => undefined, decide: () => null };
