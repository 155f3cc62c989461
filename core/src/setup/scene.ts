import type { Engine } from '../engine/engine.ts';
import { type Evaluation, WORKING_SIZE } from '../engine/evaluation.ts';
import type { SourceRef } from '../pixels/pixels.ts';
import type { Recipe } from '../recipe/recipe.ts';
import type { SettingValue } from '../settings/kinds.ts';
import type { StationName } from '../stations/index.ts';
import { type Fitness, fitness } from '../stations/source/fitness.ts';
import { runToEnd } from '../work/steps.ts';
import { type ProposedSetting, proposedSettings, type SetupProposal, withProposed } from './proposal.ts';

type Tried = Partial<Record<StationName, Record<string, SettingValue>>>;

/** The photo that is set up: the recipe as far as it is, and what it comes to. Everything at the working size. */
export class SetupScene {
  recipe: Recipe;
  readonly source: SourceRef;
  readonly signal: AbortSignal | undefined;
  readonly engine: Engine;
  readonly #chosen: ReadonlySet<string>;
  #fitness: Fitness | null = null;

  /** `chosen` are settings that stay as they are, as “station.key”. */
  constructor(
    engine: Engine,
    recipe: Recipe,
    source: SourceRef,
    { chosen = new Set(), signal }: { chosen?: ReadonlySet<string>; signal?: AbortSignal } = {},
  ) {
    this.engine = engine;
    this.#chosen = chosen;
    this.recipe = recipe;
    this.source = source;
    this.signal = signal;
  }

  /** Settings without those that were chosen. */
  free(settings: readonly ProposedSetting[]): ProposedSetting[] {
    return settings.filter(({ station, key }) => !this.#chosen.has(`${station}.${key}`));
  }

  /** Takes settings into the recipe; those that were chosen stay. */
  apply(settings: readonly ProposedSetting[]): void {
    this.recipe = withProposed(this.recipe, this.free(settings));
  }

  /** The recipe with some settings tried out. */
  #trying(tried: Tried): Recipe {
    const settings = Object.entries(tried).flatMap(([station, values]) =>
      proposedSettings(this.recipe, station as StationName, values),
    );
    return withProposed(this.recipe, settings);
  }

  /** Everything up to a station, with some settings tried out; measured where `measured` is set. */
  evaluate(until: StationName, tried: Tried = {}, measured = false): Promise<Evaluation> {
    const recipe = this.#trying(tried);
    return this.engine.evaluate({
      recipe,
      source: this.source,
      size: Math.min(WORKING_SIZE, recipe.stations.square.size),
      until,
      signal: this.signal,
      withoutVerdicts: !measured,
    });
  }

  /** Whether normals and albedo are measured from several shots. */
  async isMeasured(): Promise<boolean> {
    if (this.recipe.stations.source.shots.length === 0) return false;
    return (await this.evaluate('source')).outputs.source!.shots !== null;
  }

  /** What the photo offers. */
  async fitness(): Promise<Fitness> {
    this.#fitness ??= runToEnd(fitness((await this.evaluate('source')).outputs.source!));
    return this.#fitness;
  }
}

/** Measures one thing and proposes what follows from it; nothing where all is right as it is. */
export type SetupStep = (scene: SetupScene) => Promise<SetupProposal[]>;
