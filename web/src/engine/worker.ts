import {
  coatsInUse,
  type JoinDecision,
  joins,
  luminance,
  mainDirection,
  Problem,
  Raster,
  type Recipe,
  repeatFigure,
  resizeArea,
  runToEnd,
  type StationName,
  type StationOutputs,
  seamScore,
  WORKING_SIZE,
} from '@zesty-tile/core';
import * as Comlink from 'comlink';
import { receiving } from './carried.ts';
import { coatPicturesOf } from './coat-pictures.ts';
import { lookedCrate } from './crate-look.ts';
import { farPicture } from './far-picture.ts';
import { cachedView, engine, made, transferred, viewOf } from './made.ts';
import { shownCover } from './mask-cover.ts';
import { offersOf } from './offers.ts';
import type { EngineWorker, Hear, ShownMaps } from './protocol.ts';
import { readAt } from './read-at.ts';
import { BEFORE_OCCLUSION, OCCLUSION, Showing, transfers } from './showing.ts';
import { newMaps } from './sill-maps.ts';
import { stylePicturesOf } from './style-pictures.ts';
import { viewRaster } from './view-pictures.ts';
import { isMap, stationOf, type ViewName } from './views.ts';

/** Large enough to measure a direction to a tenth of a degree. */
const DIRECTION_SIZE = 512;

/** The last station that must have run before a view of a recipe can be shown: coats change every map. */
const viewStation = (view: ViewName, { stations }: Recipe): StationName =>
  isMap(view) && coatsInUse(stations.coats).length > 0 ? 'coats' : stationOf(view);

let current: AbortController | null = null;
let listener: Hear = () => undefined;

const worker: EngineWorker = {
  ...offersOf(engine),
  ...coatPicturesOf(engine),
  ...stylePicturesOf(engine),
  listen(hear) {
    listener = hear;
  },
  async show(request, number) {
    current?.abort();
    current = new AbortController();
    made.wantedView = request.view;
    await new Showing(request, (update) => listener(update, number), current.signal).run();
  },
  async look(view) {
    made.wantedView = view;
    return transferred(await cachedView(view));
  },
  peek: async (view) => transferred(await cachedView(view)),
  async other({ recipe, source, view }, size) {
    const { outputs } = await engine.evaluate({
      recipe,
      source,
      size,
      until: viewStation(view, recipe),
      without: BEFORE_OCCLUSION.includes(view) ? OCCLUSION : [],
      withoutVerdicts: true,
    });
    const repairs = recipe.stations.join.repairs.length;
    const hasCoats = coatsInUse(recipe.stations.coats).length > 0;
    return transferred(await viewOf({ outputs, repairs, hasCoats }, view));
  },
  async mapsOf({ recipe, source }, size) {
    const { surface, frame } = await engine.evaluate({
      recipe,
      source,
      size,
      until: 'coats',
      withoutVerdicts: true,
    });
    // Nothing was sent of it, so all are new.
    const maps = newMaps(surface!, frame) as ShownMaps;
    return Comlink.transfer(maps, transfers({ kind: 'maps', maps }));
  },
  async far(view, look) {
    const last = made.latest ?? made.whole;
    const raster = last && (await viewRaster(last.outputs, view, last.hasCoats));
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
    const picture = (made.latest ?? made.whole)?.outputs.source?.picture;
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
    const { whole, recipe } = made;
    const { join, even } = whole?.outputs ?? {};
    const decided = recipe?.decisions.join?.data as JoinDecision | undefined;
    if (!join || !even || !decided || !recipe) return null;
    const axes = joins(recipe.stations.join.axes);
    const score = seamScore(join.picture, even.picture, decided.reach, axes, decided, null, async () => {});
    return (await score).spots;
  },
  async cover(zone) {
    const { quick } = made;
    const { style, relief } = quick?.outputs ?? {};
    if (!quick || !style || !relief) return null;
    const shown = await shownCover(zone, { style, relief }, quick.frame);
    return Comlink.transfer(shown, [shown.values.buffer]);
  },
  readAt(readings) {
    const { whole, recipe } = made;
    if (!whole || !recipe) return null;
    return readAt(whole.surface, whole.outputs as StationOutputs, whole.frame, recipe.stations, readings);
  },
  async crateLook(chosen, naming) {
    const { whole } = made;
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

Comlink.expose(receiving(worker));
