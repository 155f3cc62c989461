import {
  BAND_VIEWS,
  coatsInUse,
  type Evaluation,
  gaugeMarks,
  isBeyond,
  keyOf,
  luminance,
  luminanceBins,
  PLANES,
  Problem,
  type Raster,
  type Recipe,
  type StationName,
  type StationOutputs,
  Stopped,
  type Verdict,
  WORKING_SIZE,
} from '@zesty-tile/core';
import * as Comlink from 'comlink';
import { buffersOf } from './handed-out.ts';
import { engine, made, shownRaster, team, thumbnailOf, viewOf } from './made.ts';
import { News } from './news.ts';
import type { Marks, ShowRequest, Update } from './protocol.ts';
import { newMaps, sentMaps } from './sill-maps.ts';
import { stationOf, VIEW_OF, type ViewName } from './views.ts';

/** The largest size computed in the browser; crates are made at any size by the server. */
const LARGEST = 2048;
/** Rest between the first picture and the sharper ones, so that a moving dial is not held up. */
const REST_MS = 350;

export const OCCLUSION = ['relief.occlusion'] as const;
/** Views of Relief that need not wait for occlusion. */
export const BEFORE_OCCLUSION: readonly ViewName[] = ['height', 'normal', 'cavity', ...BAND_VIEWS];

/** Sizes in the order they are shown: quick first, then sharper. */
function sizesFor(wanted: number): number[] {
  const top = Math.min(wanted, LARGEST);
  return [...new Set([Math.min(WORKING_SIZE, top), Math.min(1024, top), top])];
}

/** What of an albedo no real surface has, or null where there is nothing of the kind. */
function beyondMarks({ dry, zones }: StationOutputs['gauge'], recipe: Recipe): Marks | null {
  const { marks } = gaugeMarks(luminance(dry), recipe.stations.gauge, zones);
  return marks.some(isBeyond) ? { width: dry.width, height: dry.height, values: marks } : null;
}

const sentStations = new News<StationName>();

/** Whether two recipes show the same tile but for its repairs. */
function differsInRepairs(a: Recipe, b: Recipe): boolean {
  const rest = ({ stations, masks, seed }: Recipe) =>
    keyOf([{ ...stations, join: { ...stations.join, repairs: [] } }, masks, seed]);
  return keyOf(a.stations.join.repairs) !== keyOf(b.stations.join.repairs) && rest(a) === rest(b);
}

/** The memory of an update that is transferred to the page. */
export function transfers(update: Update): Transferable[] {
  if (update.kind === 'view') return buffersOf(update.shown);
  if (update.kind === 'marks') return update.marks ? [update.marks.values.buffer] : [];
  if (update.kind !== 'maps') return [];
  const { albedo, normal, packed, specular, opacity, emission, height } = update.maps;
  const pictures = [albedo, normal, packed, specular?.map, opacity, emission].map((one) => one?.rgba);
  return [...pictures, height?.values].flatMap((one) => (one ? [one.buffer] : []));
}

const rest = (signal: AbortSignal) =>
  new Promise<void>((resolve, reject) => {
    const timer = setTimeout(resolve, REST_MS);
    signal.addEventListener('abort', () => {
      clearTimeout(timer);
      reject(new Stopped());
    });
  });

/** One request of the page for pictures of a recipe: what it wants to see first, then everything at growing sizes. */
export class Showing {
  readonly #request: ShowRequest;
  readonly #onUpdate: (update: Update) => void | Promise<void>;
  readonly #signal: AbortSignal;
  /** The recipe with the decisions so far. */
  #decided: Recipe;
  /** While the Floor shows a picture of this size, smaller ones of the same recipe are not sent. */
  #sharpest = 0;
  /** The view that the page has of the current pass. */
  #shownView: ViewName | null = null;
  /** Reports that wait until the Floor has its picture. */
  #waiting: (() => void)[] = [];

  constructor(request: ShowRequest, onUpdate: (update: Update) => void | Promise<void>, signal: AbortSignal) {
    this.#request = request;
    this.#onUpdate = onUpdate;
    this.#signal = signal;
    this.#decided = request.recipe;
  }

  /** Shows all of it, or as much as there is time for before a newer request ends it. */
  async run(): Promise<void> {
    const { recipe } = this.#request;
    try {
      const { whole, wantedView } = made;
      if (wantedView === 'joined' && whole && made.recipe && differsInRepairs(made.recipe, recipe)) {
        await this.#showRepairs(whole.size);
      }
      for (const [k, size] of sizesFor(recipe.stations.square.size).entries()) {
        if (k > 0) await rest(this.#signal);
        // Occlusion takes longest and is not to be waited for where another map of Relief is looked at.
        else if (BEFORE_OCCLUSION.includes(made.wantedView)) await this.#pass(size, true);
        await this.#wholePass(size, k === 0);
      }
      this.#send({ kind: 'idle' });
    } catch (error) {
      if (!(error instanceof Stopped)) this.#fail(error);
    }
  }

  get #hasCoats(): boolean {
    return coatsInUse(this.#request.recipe.stations.coats).length > 0;
  }

  get #repairs(): number {
    return this.#request.recipe.stations.join.repairs.length;
  }

  #send(update: Update): void | Promise<void> {
    if (this.#signal.aborted) return;
    return this.#onUpdate(Comlink.transfer(update, transfers(update)));
  }

  #fail(error: unknown): void {
    const known = error instanceof Problem;
    this.#send({
      kind: 'failed',
      code: known ? error.code : 'internal',
      message: known
        ? error.message
        : `The picture could not be computed: ${error instanceof Error ? error.message : error}`,
      hint: known ? error.hint : 'Change a dial or reload the page; nothing that was set is lost.',
    });
  }

  /** One more repair is shown at the size of the last picture at once. */
  async #showRepairs(size: number): Promise<void> {
    this.#sharpest = size;
    const { outputs } = await engine.evaluate({
      recipe: this.#decided,
      source: this.#request.source,
      size,
      signal: this.#signal,
      until: 'join',
      withoutVerdicts: true,
    });
    made.latest = { outputs, size, repairs: this.#repairs, hasCoats: this.#hasCoats };
    const shown = await viewOf(made.latest, 'joined');
    if (shown) await this.#send({ kind: 'view', shown, size });
    // The next stroke may be on its way.
    await rest(this.#signal);
  }

  async #pass(size: number, isQuick: boolean): Promise<Evaluation> {
    this.#shownView = null;
    this.#waiting = [];
    const evaluation = await engine.evaluate({
      recipe: this.#decided,
      source: this.#request.source,
      size,
      signal: this.#signal,
      until: isQuick ? 'relief' : undefined,
      first: stationOf(made.wantedView),
      without: isQuick ? OCCLUSION : [],
      onProgress: (station, done) => this.#send({ kind: 'busy', station, done, size }),
      onOutput: (_station, outputs) => this.#showOutput(outputs, size),
      onTheWay: (station, make) => this.#showOnTheWay(station, make, size),
      onStation: (station, verdict, outputs) => {
        if (!this.#signal.aborted && !isQuick) this.#reportStation(station, verdict, { ...outputs }, size);
      },
    });
    if (!this.#signal.aborted) this.#report();
    this.#decided = evaluation.recipe;
    return evaluation;
  }

  /** Sends how the wanted view looks on the way to it, of the first picture alone: later ones only become sharper. */
  async #showOnTheWay(station: StationName, make: () => Promise<Raster>, size: number): Promise<void> {
    const { wantedView } = made;
    const isWanted = wantedView === VIEW_OF[station] && size <= WORKING_SIZE;
    if (this.#signal.aborted || !isWanted) return;
    const shown = shownRaster(await make(), wantedView, this.#repairs);
    await this.#send({ kind: 'view', shown, size });
  }

  /** Sends the wanted view as soon as the pass has it. */
  async #showOutput(outputs: Partial<StationOutputs>, size: number): Promise<void> {
    if (this.#signal.aborted) return;
    made.latest = { outputs, size, repairs: this.#repairs, hasCoats: this.#hasCoats };
    const { wantedView } = made;
    // The Floor need not wait for stations that it does not show, nor for what is measured.
    if (this.#shownView === wantedView || (size < this.#sharpest && wantedView === 'joined')) return;
    const shown = await viewOf(made.latest, wantedView);
    if (!shown) return;
    this.#shownView = shown.view;
    // The page has the processor to itself while it paints.
    await this.#send({ kind: 'view', shown, size });
  }

  #reportStation(
    station: StationName,
    verdict: Verdict,
    outputs: Partial<StationOutputs>,
    size: number,
  ): void {
    this.#waiting.push(() => {
      if (!sentStations.is(station, size, outputs[station], verdict)) return;
      const thumbnail = thumbnailOf(outputs, station);
      this.#send({ kind: 'station', station, verdict, thumbnail, size });
      if (station === 'proof') this.#send({ kind: 'repeats', repeats: outputs.proof!.repeats });
      if (station !== 'gauge') return;
      this.#send({ kind: 'marks', marks: beyondMarks(outputs.gauge!, this.#request.recipe) });
      this.#send({ kind: 'bins', bins: luminanceBins(outputs.gauge!.albedo) });
    });
    if (this.#shownView === made.wantedView) this.#report();
  }

  #report(): void {
    for (const one of this.#waiting) one();
    this.#waiting = [];
  }

  async #wholePass(size: number, isFirst: boolean): Promise<void> {
    const before = PLANES.used;
    const { outputs, surface, timings, frame, longestStep: longest, used } = await this.#pass(size, false);
    made.whole = {
      ...{ outputs, surface: surface!, size, frame },
      ...{ repairs: this.#repairs, hasCoats: this.#hasCoats },
    };
    if (isFirst) made.quick = made.whole;
    made.recipe = this.#decided;
    if (!this.#signal.aborted) this.#send({ kind: 'maps', maps: newMaps(surface!, frame, sentMaps) });
    const work = {
      size,
      ms: Object.values(timings).reduce((sum, ms) => sum + ms, 0),
      ...used,
      bytes: engine.cache.bytes,
      limit: engine.cache.limit,
      threads: team.size,
      planes: {
        taken: PLANES.used.taken - before.taken,
        reused: PLANES.used.reused - before.reused,
      },
      longest,
    };
    this.#send({ kind: 'settled', size, decisions: this.#decided.decisions, work });
  }
}
