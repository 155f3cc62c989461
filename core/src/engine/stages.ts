import { keyOf } from '../hashing/key-of.ts';
import { PLANES } from '../memory/pool.ts';
import { codesRaster } from '../pixels/codes-raster.ts';
import { reductionFor } from '../pixels/reduction.ts';
import type { Raster } from '../raster/raster.ts';
import type { StoredDecision } from '../recipe/recipe.ts';
import type { StationName } from '../stations/index.ts';
import type { OptionalPart } from '../stations/station.ts';
import { checkpointer, type WorkContext } from '../team/context.ts';
import { ALONE } from '../team/team.ts';
import type { Frame } from '../tile/frame.ts';
import type { Verdict } from '../verdict.ts';
import { markYield } from '../work/yield.ts';
import type { Cache } from './cache.ts';
import { type EngineHost, type EvaluationRequest, WORKING_SIZE } from './evaluation.ts';
import { frameOf } from './frame.ts';
import {
  COMPUTATION,
  decidesFromOf,
  frameKey,
  handsOn,
  originKey,
  partsKey,
  readsOf,
  settingsKey,
} from './keys.ts';
import { settingsIn, stationList, stationOf } from './stations.ts';

/** A station's result at one size. */
export interface Stage {
  key: string;
  output: unknown;
  /** Whether it was made now, and not found in the cache. */
  isNew: boolean;
}

/** Who is told of the work as it goes on. */
export interface StageListener {
  /** A share of a station is done, 0..1. */
  progress(name: StationName, done: number): void;
  /** How long nothing else could run on this thread, ms. */
  step(name: StationName, ms: number): void;
}

/** The results that one evaluation needs, each made once: what they depend on, and which of them are in the cache. */
export class Stages {
  readonly decisions: Partial<Record<StationName, StoredDecision>>;
  readonly size: number;
  readonly frame: Frame;
  #host: EngineHost;
  #cache: Cache;
  #request: EvaluationRequest;
  #listener: StageListener;
  #stages = new Map<string, Promise<Stage>>();
  #demanded: Set<OptionalPart>;
  /** Results that were in the cache, and such as had to be made. */
  readonly used = { hits: 0, misses: 0 };

  constructor(host: EngineHost, cache: Cache, request: EvaluationRequest, listener: StageListener) {
    this.#host = host;
    this.#cache = cache;
    this.#request = request;
    this.#listener = listener;
    const { recipe } = request;
    this.decisions = { ...recipe.decisions };
    this.frame = frameOf(request, request.size ?? null);
    this.size = this.frame.size;
    this.#demanded = new Set(
      stationList.flatMap(({ name, demands }) => demands?.(settingsIn(recipe, name), recipe.masks) ?? []),
    );
  }

  /** A result from the cache; undefined where it is to be made. */
  #kept<T>(key: string): T | undefined {
    const kept = this.#cache.get<T>(key);
    if (kept === undefined) this.used.misses++;
    else this.used.hits++;
    return kept;
  }

  /** The result of a station, at the size that is made now or another. */
  at(name: StationName, size = this.size): Promise<Stage> {
    const id = `${name}@${size}`;
    let stage = this.#stages.get(id);
    if (!stage) {
      stage = this.#make(name, size);
      this.#stages.set(id, stage);
    }
    return stage;
  }

  /** Forgets a station's result, so that its memory can be reused. */
  release(name: StationName): void {
    this.#stages.delete(`${name}@${this.size}`);
  }

  /** Puts another output in the place of one that was made. */
  replace(name: StationName, output: unknown): void {
    const id = `${name}@${this.size}`;
    const stage = this.#stages.get(id)!;
    this.#stages.set(
      id,
      stage.then((one) => ({ ...one, output })),
    );
  }

  /** Whether an optional part of a station is left out: nothing looks at it, and no setting needs it. */
  isOmitted(part: OptionalPart, ofPhoto: boolean): boolean {
    const { without, tileOnly } = this.#request;
    const isUnwanted = without?.includes(part) || (tileOnly === true && ofPhoto);
    return isUnwanted && !this.#demanded.has(part);
  }

  /** What a station reads, and the keys of what that depends on. */
  async inputs(
    name: StationName,
    size = this.size,
    reads = readsOf(this.#request.recipe, name),
  ): Promise<{ input: unknown; keys: string[] }> {
    const station = stationOf(name);
    if (station.loading) {
      return { input: null, keys: station.loading.key(this.#request.source, frameOf(this.#request, size)) };
    }
    const stages = await Promise.all(reads.map(async (read) => [read, await this.at(read, size)] as const));
    const keys = stages.map(([, stage]) => stage.key);
    const outputs = Object.fromEntries(stages.map(([read, stage]) => [read, stage.output]));
    const optional = Object.entries(station.optional ?? {});
    if (optional.length > 0) {
      // What is settled at the working size may need every part.
      const omit = optional
        .filter(([part, { ofPhoto }]) => size === this.size && this.isOmitted(`${name}.${part}`, ofPhoto))
        .map(([part]) => part);
      return { input: { ...outputs, omit }, keys: [...keys, ...omit.map((part) => `without ${part}`)] };
    }
    return { input: station.reads.length === 1 ? outputs[station.reads[0].name] : outputs, keys };
  }

  /** Releases memory that nobody holds any more, where a set is made. */
  collect(): void {
    if (!this.#request.tileOnly) return;
    PLANES.empty();
    this.#host.team?.collect?.();
    this.#host.collect?.();
  }

  /** What a station needs to work, for parts that depend on these keys. */
  context(name: StationName, key: string): WorkContext {
    return {
      team: this.#host.team ?? ALONE,
      checkpoint: checkpointer(
        this.#request.signal,
        (done) => this.#listener.progress(name, done),
        (ms) => this.#listener.step(name, ms),
      ),
      part: async (part, dependsOn, make) => {
        const partKey = keyOf([key, part, dependsOn]);
        const kept = this.#kept<Awaited<ReturnType<typeof make>>>(partKey);
        if (kept !== undefined) return kept;
        const made = await make();
        this.#cache.set(partKey, made);
        return made;
      },
      collect: () => this.collect(),
      onTheWay: async (make) => this.#request.onTheWay?.(name, make),
      known: (part, dependsOn) => this.#cache.get(keyOf([key, part, dependsOn])),
      picture: async (ref, shortEdge, planes) => {
        const reduction = reductionFor(ref, shortEdge);
        const pictureKey = keyOf(['picture', ref.sha256, reduction, planes]);
        const kept = this.#kept<Raster>(pictureKey);
        if (kept) return kept;
        const pixels = await this.#host.pixels(ref, shortEdge, 'data');
        markYield();
        const made = codesRaster(pixels, planes);
        this.#cache.set(pictureKey, made);
        return made;
      },
    };
  }

  /** The context of a station whose parts depend on what it reads. */
  async partsContext(name: StationName, size: number): Promise<WorkContext> {
    const { keys } = await this.inputs(name, size);
    return this.context(name, partsKey(this.#request.recipe, name, size, keys));
  }

  async #decided(name: StationName): Promise<unknown> {
    const station = stationOf(name);
    const { recipe, source } = this.#request;
    const settings = settingsIn(recipe, name);
    const photoShortEdge = station.loading && { photoShortEdge: station.loading.decidesAt };
    const frame = { ...frameOf(this.#request, WORKING_SIZE), ...photoShortEdge };
    const dependsOn = station.decidesOn(settings, frame);
    if (dependsOn === undefined || handsOn(recipe, name)) return null;
    const inputKey = originKey(recipe, source.sha256, name, frame);
    const key = keyOf([COMPUTATION, name, inputKey, dependsOn]);
    const known = this.decisions[name];
    if (known?.key === key) {
      // Another recipe of the tile may replace it in the next request, and a step that is undone may ask for it again.
      this.#cache.set(`decision ${key}`, known);
      return known.data;
    }
    const kept = this.#kept<StoredDecision>(`decision ${key}`);
    if (kept) {
      this.decisions[name] = kept;
      return kept.data;
    }
    const { input, keys } = await this.inputs(name, WORKING_SIZE, decidesFromOf(recipe, name));
    // Where it is decided from all that is read, the run at the working size has the same parts.
    const context = this.context(name, partsKey(recipe, name, WORKING_SIZE, keys));
    await context.checkpoint(0);
    const read = await station.loading?.load(source, settings, frame, this.#host);
    if (read) markYield();
    const data = await station.decide(read ?? input, settings, frame, context);
    if (data !== null) {
      this.decisions[name] = { key, data };
      this.#cache.set(`decision ${key}`, { key, data });
    }
    return data;
  }

  async #make(name: StationName, size: number): Promise<Stage> {
    const station = stationOf(name);
    const { recipe, source } = this.#request;
    const decided = await this.#decided(name);
    const { input, keys } = await this.inputs(name, size);
    const frame = frameOf(this.#request, size);
    // What is handed on as it is has the key of what came in.
    if (handsOn(recipe, name)) {
      const settings = settingsIn(recipe, name);
      const output = await station.run(input, settings, decided, frame, this.context(name, keys[0]));
      return { key: keys[0], output, isNew: false };
    }
    const key = keyOf([
      COMPUTATION,
      name,
      size,
      keys,
      settingsKey(recipe, name),
      decided,
      frameKey(name, frame),
    ]);
    const kept = this.#kept<{ output: unknown }>(key);
    if (kept) return { key, output: kept.output, isNew: false };
    const context = this.context(name, partsKey(recipe, name, size, keys));
    await context.checkpoint(0);
    const settings = settingsIn(recipe, name);
    // Pictures are read only when a result is really made of them.
    const read = await station.loading?.load(source, settings, frame, this.#host);
    if (read) markYield();
    const output = await station.run(read ?? input, settings, decided, frame, context);
    this.#cache.set(key, { output });
    return { key, output, isNew: true };
  }

  /** What a station measures on its result. */
  async verdict(name: StationName, stage: Stage): Promise<Verdict> {
    const { edgeMetres, wantedSize } = this.frame;
    const key = keyOf(['verdict', name, stage.key, edgeMetres, wantedSize]);
    const kept = this.#kept<Verdict>(key);
    if (kept) return kept;
    const { input } = await this.inputs(name);
    const decided = await this.#decided(name);
    const context = this.context(name, stage.key);
    await context.checkpoint(1);
    const settings = settingsIn(this.#request.recipe, name);
    const verdict = await stationOf(name).verdict(
      stage.output,
      input,
      settings,
      decided,
      this.frame,
      context,
    );
    this.#cache.set(key, verdict);
    return verdict;
  }
}
