import {
  BAND_VIEWS,
  Engine,
  type Frame,
  gaugeMarks,
  isBeyond,
  type JoinDecision,
  joins,
  keyOf,
  luminance,
  luminanceBins,
  mainDirection,
  PLANES,
  Problem,
  Raster,
  type Recipe,
  repeatFigure,
  resizeArea,
  runToEnd,
  type StationName,
  type StationOutputs,
  Stopped,
  type Surface,
  seamScore,
  WORKING_SIZE,
} from '@zesty-tile/core';
import * as Comlink from 'comlink';
import { lookedCrate } from './crate-look.ts';
import { farPicture } from './far-picture.ts';
import { buffersOf, toHandOut } from './handed-out.ts';
import { shownCover } from './mask-cover.ts';
import { News } from './news.ts';
import { offersOf } from './offers.ts';
import { serverHost } from './pixels.ts';
import type { EngineWorker, Marks, ShownMaps, ShownView, Thumbnail, Update } from './protocol.ts';
import { readAt } from './read-at.ts';
import { newMaps, sentMaps } from './sill-maps.ts';
import { smallMip } from './small-mip.ts';
import { teamHere } from './team.ts';
import { rgbaOf, viewRaster } from './view-pictures.ts';
import { stationOf, VIEW_OF, type ViewName } from './views.ts';

/** Until the page says what was chosen. */
const CACHE_BYTES = 600e6;
/** The largest size computed in the browser; crates are made at any size by the server. */
const LARGEST = 2048;
/** Large enough to tell a direction to a tenth of a degree. */
const DIRECTION_SIZE = 512;
const OCCLUSION = ['relief.occlusion'] as const;
const BEFORE_OCCLUSION: readonly ViewName[] = ['height', 'normal', 'cavity', ...BAND_VIEWS];
/** Rest between the first picture and the sharper ones, so that a moving dial is not held up. */
const REST_MS = 350;

const team = teamHere();
const engine = new Engine({ ...serverHost, team }, CACHE_BYTES);
let current: AbortController | null = null;
/** What the pass at work has made so far, and what the last whole pass made. */
let latest: Made | null = null;
let whole: Whole | null = null;
/** The last whole pass at the working size, from which zones are shown while they are drawn. */
let quick: Whole | null = null;
let wantedView: ViewName = 'photo';
/** The recipe of the last whole pass, with its decisions. */
let latestRecipe: Recipe | null = null;

/** Sizes in the order they are shown: quick first, then sharper. */
function sizesFor(wanted: number): number[] {
  const top = Math.min(wanted, LARGEST);
  return [...new Set([Math.min(WORKING_SIZE, top), Math.min(1024, top), top])];
}

interface Made {
  outputs: Partial<StationOutputs>;
  size: number;
  repairs: number;
}
interface Whole extends Made {
  frame: Frame;
  surface: Surface;
}

/** What of an albedo no real surface has, or null where there is nothing of the kind. */
function beyondMarks({ dry, zones }: StationOutputs['gauge'], recipe: Recipe): Marks | null {
  const { marks } = gaugeMarks(luminance(dry), recipe.stations.gauge, zones);
  return marks.some(isBeyond) ? { width: dry.width, height: dry.height, values: marks } : null;
}

async function viewOf({ outputs, repairs }: Omit<Made, 'size'>, view: ViewName): Promise<ShownView | null> {
  const raster = await viewRaster(outputs, view);
  if (!raster) return null;
  const { width, height, planes } = raster;
  return {
    view,
    width,
    height,
    rgba: rgbaOf(raster, view),
    planes: planes.map(toHandOut),
    repairs,
  };
}

function thumbnailOf(outputs: Made['outputs'], station: StationName): Thumbnail | null {
  const view = VIEW_OF[station];
  const raster = viewRaster(outputs, view);
  if (!raster || raster instanceof Promise) return null;
  const small = smallMip(raster);
  return { width: small.width, height: small.height, rgba: rgbaOf(small, view) };
}

const sentStations = new News<StationName>();

/** Whether two recipes show the same tile but for its repairs. */
function differsInRepairs(a: Recipe, b: Recipe): boolean {
  const rest = ({ stations, masks, seed }: Recipe) =>
    keyOf([{ ...stations, join: { ...stations.join, repairs: [] } }, masks, seed]);
  return keyOf(a.stations.join.repairs) !== keyOf(b.stations.join.repairs) && rest(a) === rest(b);
}

const handedOut = (shown: ShownView | null): ShownView | null =>
  shown && Comlink.transfer(shown, buffersOf(shown));

function transfers(update: Update): Transferable[] {
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

const atHand = async (view: ViewName): Promise<ShownView | null> =>
  (latest && (await viewOf(latest, view))) ?? (whole && (await viewOf(whole, view)));

const worker: EngineWorker = {
  ...offersOf(engine),
  async show({ recipe, source, view }, onUpdate) {
    current?.abort();
    const abort = new AbortController();
    current = abort;
    wantedView = view;
    const { signal } = abort;
    const send = (update: Update): Promise<void> | undefined => {
      if (signal.aborted) return;
      return onUpdate(Comlink.transfer(update, transfers(update)));
    };
    let decided: Recipe = recipe;
    const repairs = recipe.stations.join.repairs.length;
    /** While the Floor shows a picture of this size, smaller ones of the same recipe are not sent. */
    let sharpest = 0;
    const pass = async (size: number, isQuick: boolean) => {
      let shownView: ViewName | null = null;
      // What is measured on the way waits until the Floor has its picture.
      let waiting: (() => void)[] = [];
      const report = () => {
        for (const one of waiting) one();
        waiting = [];
      };
      const evaluation = await engine.evaluate({
        recipe: decided,
        source,
        size,
        signal,
        until: isQuick ? 'relief' : undefined,
        first: stationOf(wantedView),
        without: isQuick ? OCCLUSION : [],
        onProgress: (station, done) => send({ kind: 'busy', station, done, size }),
        async onOutput(_station, outputs) {
          if (signal.aborted) return;
          latest = { outputs, size, repairs };
          // The Floor need not wait for stations that it does not show, nor for what is measured.
          if (shownView === wantedView || (size < sharpest && wantedView === 'joined')) return;
          const shown = await viewOf(latest, wantedView);
          if (!shown) return;
          shownView = shown.view;
          // The page has the processor to itself while it paints.
          await send({ kind: 'view', shown, size });
        },
        onStation(station, verdict, live) {
          if (signal.aborted || isQuick) return;
          const outputs = { ...live };
          waiting.push(() => {
            if (!sentStations.is(station, size, outputs[station], verdict)) return;
            const thumbnail = thumbnailOf(outputs, station);
            send({ kind: 'station', station, verdict, thumbnail, size });
            if (station === 'proof') send({ kind: 'repeats', repeats: outputs.proof!.repeats });
            if (station !== 'gauge') return;
            send({ kind: 'marks', marks: beyondMarks(outputs.gauge!, recipe) });
            send({ kind: 'bins', bins: luminanceBins(outputs.gauge!.albedo) });
          });
          if (shownView === wantedView) report();
        },
      });
      if (!signal.aborted) report();
      decided = evaluation.recipe;
      return evaluation;
    };
    try {
      if (wantedView === 'joined' && whole && latestRecipe && differsInRepairs(latestRecipe, recipe)) {
        sharpest = whole.size;
        const { outputs } = await engine.evaluate({
          recipe: decided,
          source,
          size: sharpest,
          signal,
          until: 'join',
          withoutVerdicts: true,
        });
        latest = { outputs, size: sharpest, repairs };
        const shown = await viewOf(latest, 'joined');
        if (shown) await send({ kind: 'view', shown, size: sharpest });
        // The next stroke may be on its way.
        await rest(signal);
      }
      for (const [k, size] of sizesFor(recipe.stations.square.size).entries()) {
        if (k > 0) await rest(signal);
        // Occlusion takes longest and is not to be waited for where another map of Relief is looked at.
        else if (BEFORE_OCCLUSION.includes(wantedView)) await pass(size, true);
        const { hits, misses } = engine.cache;
        const before = PLANES.used;
        const { outputs, surface, timings, frame, longestStep: longest } = await pass(size, false);
        whole = { outputs, surface: surface!, size, repairs, frame };
        if (k === 0) quick = whole;
        latestRecipe = decided;
        const maps = signal.aborted ? null : newMaps(whole.surface, frame, sentMaps);
        if (maps) send({ kind: 'maps', maps });
        const work = {
          size,
          ms: Object.values(timings).reduce((sum, ms) => sum + ms, 0),
          hits: engine.cache.hits - hits,
          misses: engine.cache.misses - misses,
          bytes: engine.cache.bytes,
          limit: engine.cache.limit,
          threads: team.size,
          planes: {
            taken: PLANES.used.taken - before.taken,
            reused: PLANES.used.reused - before.reused,
          },
          longest,
        };
        send({ kind: 'settled', size, decisions: decided.decisions, work });
      }
      send({ kind: 'idle' });
    } catch (error) {
      if (error instanceof Stopped) return;
      const known = error instanceof Problem;
      send({
        kind: 'failed',
        code: known ? error.code : 'internal',
        message: known
          ? error.message
          : `The picture could not be computed: ${error instanceof Error ? error.message : error}`,
        hint: known ? error.hint : 'Change a dial or reload the page; nothing that was set is lost.',
      });
    }
  },
  async look(view) {
    wantedView = view;
    return handedOut(await atHand(view));
  },
  peek: async (view) => handedOut(await atHand(view)),
  async other({ recipe, source, view }, size) {
    const { outputs } = await engine.evaluate({
      recipe,
      source,
      size,
      until: stationOf(view),
      without: BEFORE_OCCLUSION.includes(view) ? OCCLUSION : [],
      withoutVerdicts: true,
    });
    const repairs = recipe.stations.join.repairs.length;
    return handedOut(await viewOf({ outputs, repairs }, view));
  },
  async mapsOf({ recipe, source }, size) {
    const { surface, frame } = await engine.evaluate({
      recipe,
      source,
      size,
      until: 'finish',
      withoutVerdicts: true,
    });
    // Nothing was sent of it, so all are new.
    const maps = newMaps(surface!, frame) as ShownMaps;
    return Comlink.transfer(maps, transfers({ kind: 'maps', maps }));
  },
  async far(view, look) {
    const made = latest ?? whole;
    const raster = made && (await viewRaster(made.outputs, view));
    if (!raster) return null;
    const shown = farPicture(raster, view, look);
    return Comlink.transfer(shown, [shown.rgba.buffer]);
  },
  async repeatFigure({ recipe, source }) {
    const size = Math.min(WORKING_SIZE, recipe.stations.square.size);
    const { outputs } = await engine.evaluate({
      recipe,
      source,
      size,
      until: 'proof',
      withoutVerdicts: true,
    });
    return repeatFigure(outputs.proof!.repeats);
  },
  mainDirection() {
    const picture = (latest ?? whole)?.outputs.source?.picture;
    if (!picture) return null;
    const scale = Math.min(1, DIRECTION_SIZE / Math.max(picture.width, picture.height));
    const { width, height, planes } = resizeArea(
      new Raster(picture.width, picture.height, [luminance(picture)]),
      Math.round(picture.width * scale),
      Math.round(picture.height * scale),
    );
    return runToEnd(mainDirection(planes[0], width, height));
  },
  async seamHeat() {
    const made = whole?.outputs;
    const decided = latestRecipe?.decisions.join?.data as JoinDecision | undefined;
    if (!made?.join || !made.even || !decided || !latestRecipe) return null;
    const axes = joins(latestRecipe.stations.join.axes);
    const { join, even } = made;
    const score = seamScore(join.picture, even.picture, decided.reach, axes, decided, async () => {});
    return (await score).spots;
  },
  async cover(zone) {
    const { join, relief } = quick?.outputs ?? {};
    if (!quick || !join || !relief) return null;
    const shown = await shownCover(zone, { join, relief }, quick.frame);
    return Comlink.transfer(shown, [shown.values.buffer]);
  },
  readAt(readings) {
    if (!whole || !latestRecipe) return null;
    return readAt(
      whole.surface,
      whole.outputs as StationOutputs,
      whole.frame,
      latestRecipe.stations,
      readings,
    );
  },
  async crateLook(chosen, naming) {
    if (!whole) return null;
    try {
      return await lookedCrate(whole.surface, whole.frame, chosen, naming);
    } catch (error) {
      if (error instanceof Problem) return { problem: `${error.message} ${error.hint}` };
      throw error;
    }
  },
  keepWithin(bytes) {
    engine.cache.limit = bytes;
  },
};

Comlink.expose(worker);
