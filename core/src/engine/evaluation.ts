import type { SourceRef } from '../pixels/pixels.ts';
import type { Raster } from '../raster/raster.ts';
import type { Recipe } from '../recipe/recipe.ts';
import type { StationName, StationOutputs } from '../stations/index.ts';
import type { OptionalPart, PictureReader } from '../stations/station.ts';
import type { Surface } from '../surface/surface.ts';
import type { Team } from '../team/team.ts';
import type { Frame } from '../tile/frame.ts';
import type { Verdict } from '../verdict.ts';

/** All decisions are made at this size and replayed at every other. */
export const WORKING_SIZE = 512;

/** What the engine needs from where it runs. */
export interface EngineHost extends PictureReader {
  /** Threads that share the work, where there are more than this one. */
  team?: Team;
  /** Releases memory that nobody holds any more, where that waits to be asked. */
  collect?(): void;
}

export interface EvaluationRequest {
  recipe: Recipe;
  source: SourceRef;
  /** Edge of the tile to make, when not the recipe's own (previews). */
  size?: number;
  /** The last station to run. */
  until?: StationName;
  /** Optional parts of outputs to leave out, when nobody looks at them. */
  without?: readonly OptionalPart[];
  /** The station whose result is looked at: nothing is measured before it is made. */
  first?: StationName;
  /** Leave the results unmeasured, when they only have to be seen. */
  withoutVerdicts?: boolean;
  /**
   * Release what is of the photo once no station reads it any more, and measure the maps when all of them are made: for
   * sets, which contain the tile alone.
   */
  tileOnly?: boolean;
  signal?: AbortSignal;
  /** Share of the whole done, 0..1, and the station at work. */
  onProgress?(station: StationName, done: number): void;
  /** Called as soon as a station's result is there, before it is measured; the walk goes on when it is done. */
  onOutput?(station: StationName, outputs: Partial<StationOutputs>): void | Promise<void>;
  /** Called with how a station's result looks on the way to it: made where `make` is called, and the walk goes on after that. */
  onTheWay?(station: StationName, make: () => Promise<Raster>): void | Promise<void>;
  /** Called once every result is there; of a set nothing but figures is missing then, of a large one not even they. */
  onMade?(made: Made): void;
  /** Called as soon as a station is measured. */
  onStation?(station: StationName, verdict: Verdict, outputs: Partial<StationOutputs>): void;
}

/** A time in which nobody else was let in: as long as work can go on that is no longer wanted. */
export interface Step {
  station: StationName;
  ms: number;
}

export interface Evaluation {
  outputs: Partial<StationOutputs>;
  verdicts: Partial<Record<StationName, Verdict>>;
  /** The recipe with the decisions that were used. */
  recipe: Recipe;
  frame: Frame;
  /** The finished tile; null where not all of it was made. */
  surface: Surface | null;
  /** Wall time of each station in this evaluation, ms; 0 when it came from the cache. */
  timings: Partial<Record<StationName, number>>;
  longestStep: Step;
  /** Results that this evaluation found in the cache, and such as it had to make. */
  used: { hits: number; misses: number };
}

/** An evaluation but for what is measured. */
export type Made = Pick<Evaluation, 'outputs' | 'recipe' | 'frame' | 'surface'>;
