import type { SourceRef } from '../pixels.ts';
import type { Raster } from '../raster/raster.ts';
import type { SettingsOf, Values } from '../settings/settings.ts';
import { type GivenMap, isGivenColour } from '../stations/given.ts';
import { DECIDES_FROM, gaugeZones, READS, STATIONS, type StationOutputs } from '../stations/index.ts';
import type { JoinInput } from '../stations/join/input.ts';
import { type Proposal, type Proposed, propose } from '../stations/join/propose.ts';
import { type GraftOffer, graftOffers, type RepairSpot } from '../stations/join/repair/offers.ts';
import { isLit } from '../stations/relief/decision.ts';
import { codesRaster } from '../stations/source/linearise.ts';
import { cropOffers } from '../stations/square/offers/crop-offers.ts';
import type { CropOffer } from '../stations/square/offers/offer.ts';
import { NOTHING_TO_DECIDE, type SourceInput, type Station, type StationName } from '../stations/types.ts';
import { ALONE } from '../team/team.ts';
import type { Verdict } from '../verdict.ts';
import { readsOcclusion } from '../zones/zone.ts';
import type { Cache } from './cache.ts';
import { breather, type WorkContext } from './context.ts';
import {
  type EngineHost,
  type Evaluation,
  type EvaluationRequest,
  type Made,
  type Step,
  WORKING_SIZE,
} from './evaluation.ts';
import { frameOf } from './frame.ts';
import { contentKey } from './hash.ts';
import { COMPUTATION, keySettings, originKey, partsKey, readsOf } from './keys.ts';
import { neededShortEdge, reductionFor } from './needed.ts';
import { Progress, pathTo } from './progress.ts';
import type { StoredDecision } from './recipe.ts';
import { turned } from './turn.ts';

interface Stage {
  key: string;
  output: unknown;
  fresh: boolean;
}

type AnyStation = Station<SettingsOf, unknown, unknown, unknown>;

/** Stations whose results are of the photo, not of the tile. */
const BEFORE_TILE: readonly StationName[] = ['source', 'square', 'even'];

/** Stations that are measured on the tile's maps alone. */
const OF_TILE: readonly StationName[] = ['relief', 'finish', 'proof', 'crate'];

/** One evaluation: which stages there are, what they hang on, and what of them is made already. */
export class Walk {
  #host: EngineHost;
  #cache: Cache;
  #request: EvaluationRequest;
  #stages = new Map<string, Promise<Stage>>();
  #decisions: Partial<Record<StationName, StoredDecision>>;
  #timings: Partial<Record<StationName, number>> = {};
  #longest: Step = { station: 'source', ms: 0 };
  #at = 0;
  #progress: Progress;
  #path: StationName[];
  #size: number;

  constructor(host: EngineHost, cache: Cache, request: EvaluationRequest) {
    this.#host = host;
    this.#cache = cache;
    this.#request = request;
    this.#decisions = { ...request.recipe.decisions };
    this.#size = request.size ?? request.recipe.stations.square.size;
    this.#path = pathTo(request.until);
    this.#progress = new Progress(this.#path, (name, done) => request.onProgress?.(name, done));
  }

  async run(): Promise<Evaluation> {
    const outputs: Record<string, unknown> = {};
    const verdicts: Partial<Record<StationName, Verdict>> = {};
    const later: (() => Promise<void>)[] = [];
    turned();
    for (const [at, name] of this.#path.entries()) {
      this.#at = at;
      const start = performance.now();
      const stage = await this.#stage(name, this.#size);
      outputs[name] = stage.output;
      await this.#request.onOutput?.(name, outputs as Partial<StationOutputs>);
      const made = performance.now() - start;
      const measure = async () => {
        const begun = performance.now();
        const verdict = await this.#verdict(name, stage);
        verdicts[name] = verdict;
        this.#timings[name] = stage.fresh ? made + performance.now() - begun : 0;
        this.#request.onStation?.(name, verdict, outputs as Partial<StationOutputs>);
      };
      if (!this.#request.withoutVerdicts) {
        later.push(measure);
        if (!this.#isMeasuredLater(at)) for (const one of later.splice(0)) await one();
        this.#progress.done(name);
      }
      this.#letGo(at, outputs);
    }
    const made = this.#made(outputs);
    this.#request.onMade?.(made);
    for (const measure of later) await measure();
    return { ...made, verdicts, timings: this.#timings, longestStep: this.#longest };
  }

  /** Whether stations that are still to run come before what was made is measured. */
  #isMeasuredLater(at: number): boolean {
    const { first, tileOnly } = this.#request;
    const isWaitedFor = first !== undefined && at < this.#path.indexOf(first);
    return isWaitedFor || (tileOnly === true && OF_TILE.includes(this.#path[at]));
  }

  #made(outputs: Partial<StationOutputs>): Made {
    const { recipe } = this.#request;
    return {
      outputs,
      recipe: { ...recipe, decisions: this.#decisions },
      frame: frameOf(this.#request, this.#size),
    };
  }

  /** Whether Join is never asked for the picture as it was before Even: slanting light alone reads it. */
  get #withoutBefore(): boolean {
    return this.#request.tileOnly === true && !isLit(this.#request.recipe.stations.relief);
  }

  /** Where only the tile is wanted, drops what stands before it and is read by no station that is still to come. */
  #letGo(at: number, outputs: Record<string, unknown>): void {
    if (!this.#request.tileOnly) return;
    if (this.#path[at] === 'even' && this.#withoutBefore) this.#evenForSquare(outputs);
    const toCome = this.#path.slice(at + 1).flatMap((name) => [...READS[name], ...DECIDES_FROM[name]]);
    for (const name of BEFORE_TILE) {
      if (!(name in outputs) || toCome.includes(name)) continue;
      delete outputs[name];
      this.#stages.delete(`${name}@${this.#size}`);
    }
  }

  /** Even's picture takes the place of Square's, at which nobody looks any more. */
  #evenForSquare(outputs: Record<string, unknown>): void {
    const { square, even } = outputs as unknown as StationOutputs;
    const output = { ...square, picture: even.picture };
    outputs.square = output;
    const id = `square@${this.#size}`;
    const stage = this.#stages.get(id)!;
    this.#stages.set(
      id,
      stage.then((one) => ({ ...one, output })),
    );
  }

  async propose(onProposal: (proposal: Proposal) => void): Promise<Proposed> {
    const { input, keys } = await this.#inputs('join', WORKING_SIZE);
    const context = this.#context(
      'join',
      partsKey(this.#request.recipe.stations, 'join', WORKING_SIZE, keys),
    );
    const chosen = this.#request.recipe.stations.join;
    return propose(input as JoinInput, frameOf(this.#request, WORKING_SIZE), chosen, context, onProposal);
  }

  async cropOffers(): Promise<CropOffer[]> {
    const { output, key } = await this.#stage('source', WORKING_SIZE);
    const { picture } = output as StationOutputs['source'];
    const { turnDegrees, shape } = this.#request.recipe.stations.square;
    return cropOffers(picture, turnDegrees, shape, this.#context('source', key).breathe);
  }

  async graftOffers(spot: RepairSpot): Promise<GraftOffer[]> {
    const { input, keys } = await this.#inputs('join', WORKING_SIZE);
    const { even, square } = input as JoinInput;
    const { output } = await this.#stage('join', WORKING_SIZE);
    const { breathe } = this.#context(
      'join',
      partsKey(this.#request.recipe.stations, 'join', WORKING_SIZE, keys),
    );
    const photo = { picture: even.picture, margins: square.margins };
    const { picture } = output as StationOutputs['join'];
    return graftOffers(picture, photo, spot, frameOf(this.#request, WORKING_SIZE).edges, breathe);
  }

  #step(name: StationName, ms: number): void {
    if (ms > this.#longest.ms) this.#longest = { station: name, ms };
  }

  #settings(name: StationName): Values<SettingsOf> {
    return this.#request.recipe.stations[name] as Values<SettingsOf>;
  }

  #station(name: StationName): AnyStation {
    return STATIONS[name] as unknown as AnyStation;
  }

  #context(name: StationName, key: string): WorkContext {
    const { signal } = this.#request;
    return {
      team: this.#host.team ?? ALONE,
      breathe: breather(
        signal,
        // What is settled at the working size on the way is a part of the station that asked for it.
        (done) => this.#progress.at(this.#path[this.#at], name, done),
        (ms) => this.#step(name, ms),
      ),
      part: async (part, dependsOn, make) => {
        const partKey = contentKey([key, part, dependsOn]);
        const kept = this.#cache.get<Awaited<ReturnType<typeof make>>>(partKey);
        if (kept !== undefined) return kept;
        const made = await make();
        this.#cache.set(partKey, made);
        return made;
      },
      picture: async (ref, shortEdge, planes) => {
        const reduction = reductionFor(ref, shortEdge);
        const pictureKey = contentKey(['picture', ref.sha256, reduction, planes]);
        const kept = this.#cache.get<Raster>(pictureKey);
        if (kept) return kept;
        const pixels = await this.#host.pixels(ref, shortEdge, 'data');
        turned();
        const made = codesRaster(pixels, planes);
        this.#cache.set(pictureKey, made);
        return made;
      },
    };
  }

  #stage(name: StationName, size: number): Promise<Stage> {
    const id = `${name}@${size}`;
    let stage = this.#stages.get(id);
    if (!stage) {
      stage = this.#makeStage(name, size);
      this.#stages.set(id, stage);
    }
    return stage;
  }

  async #inputs(
    name: StationName,
    size: number,
    among = READS[name],
  ): Promise<{ input: unknown; keys: string[] }> {
    if (name === 'source') {
      const { source, recipe } = this.#request;
      const reduction = reductionFor(source, neededShortEdge(recipe, size, source));
      return { input: null, keys: [source.sha256, String(reduction)] };
    }
    const stages = await Promise.all(
      readsOf(this.#request.recipe.stations, name, among).map(
        async (read) => [read, await this.#stage(read, size)] as const,
      ),
    );
    const keys = stages.map(([, stage]) => stage.key);
    const outputs = Object.fromEntries(stages.map(([read, stage]) => [read, stage.output]));
    if (name === 'join' && size === this.#size && this.#withoutBefore) {
      return { input: { ...outputs, withoutBefore: true }, keys: [...keys, 'without before'] };
    }
    if (name === 'relief') {
      const withOcclusion =
        size !== this.#size ||
        !this.#request.withoutOcclusion ||
        readsOcclusion(gaugeZones(this.#request.recipe.stations.gauge));
      return { input: { ...outputs, withOcclusion }, keys: [...keys, String(withOcclusion)] };
    }
    return { input: READS[name].length === 1 ? outputs[READS[name][0]] : outputs, keys };
  }

  async #decided(name: StationName): Promise<unknown> {
    const station = this.#station(name);
    if (station.decide === NOTHING_TO_DECIDE.decide) return null;
    const frame = frameOf(this.#request, WORKING_SIZE);
    const inputKey = originKey(this.#request.recipe.stations, this.#request.source.sha256, name);
    const key = contentKey([COMPUTATION, name, inputKey, station.decidesOn(this.#settings(name), frame)]);
    const known = this.#decisions[name];
    if (known?.key === key) return known.data;
    const kept = this.#cache.get<StoredDecision>(`decision ${key}`);
    if (kept) {
      this.#decisions[name] = kept;
      return kept.data;
    }
    const { input, keys } = await this.#inputs(name, WORKING_SIZE, DECIDES_FROM[name]);
    // Where it is decided from all that is read, the run at the working size has the same parts.
    const context = this.#context(name, partsKey(this.#request.recipe.stations, name, WORKING_SIZE, keys));
    await context.breathe(0);
    const data = await station.decide(input, this.#settings(name), frame, context);
    if (data !== null) {
      this.#decisions[name] = { key, data };
      this.#cache.set(`decision ${key}`, { key, data });
    }
    return data;
  }

  async #makeStage(name: StationName, size: number): Promise<Stage> {
    const station = this.#station(name);
    const decided = await this.#decided(name);
    const { input, keys } = await this.#inputs(name, size);
    const frame = frameOf(this.#request, size);
    const inFrame = name === 'relief' || name === 'finish' ? frame.edgeMetres : null;
    const key = contentKey([
      COMPUTATION,
      name,
      size,
      keys,
      keySettings(this.#request.recipe.stations, name),
      decided,
      inFrame,
    ]);
    const kept = this.#cache.get<{ output: unknown }>(key);
    if (kept) return { key, output: kept.output, fresh: false };
    const context = this.#context(name, partsKey(this.#request.recipe.stations, name, size, keys));
    await context.breathe(0);
    const output = await station.run(
      await this.#filled(name, input, size),
      this.#settings(name),
      decided,
      frame,
      context,
    );
    this.#cache.set(key, { output });
    return { key, output, fresh: true };
  }

  /** The source's samples are fetched only when its stage is really made. */
  async #filled(name: StationName, input: unknown, size: number): Promise<unknown> {
    if (name !== 'source') return input;
    const { source, recipe } = this.#request;
    const shortEdge = neededShortEdge(recipe, size, source);
    const given: SourceInput['given'] = {};
    const { given: refs, reads } = recipe.stations.source;
    for (const [map, ref] of Object.entries(refs) as [GivenMap, SourceRef][]) {
      given[map] = await this.#host.pixels(ref, shortEdge, isGivenColour(map) ? 'colour' : 'data');
    }
    const kind = reads === 'data' ? 'data' : 'colour';
    const pixels = await this.#host.pixels(source, shortEdge, kind);
    turned();
    return { pixels, given } satisfies SourceInput;
  }

  async #verdict(name: StationName, stage: Stage): Promise<Verdict> {
    const frame = frameOf(this.#request, this.#size);
    const key = contentKey(['verdict', stage.key, frame.edgeMetres, frame.wantedSize]);
    const kept = this.#cache.get<Verdict>(key);
    if (kept) return kept;
    const { input } = await this.#inputs(name, this.#size);
    const decided = await this.#decided(name);
    const context = this.#context(name, stage.key);
    await context.breathe(1);
    const verdict = await this.#station(name).verdict(
      stage.output,
      input,
      this.#settings(name),
      decided,
      frame,
      context,
    );
    this.#cache.set(key, verdict);
    return verdict;
  }
}
