import { keyOf } from '../hashing/key-of.ts';
import type { Recipe } from '../recipe/recipe.ts';
import type { StationName } from '../stations/index.ts';
import type { AnyStation as Declared } from '../stations/station.ts';
import type { Frame } from '../tile/frame.ts';
import { settingsIn, stationList, stationOf } from './stations.ts';

/** Version of the computation; raise it when results change, so that old decisions are made again. */
export const COMPUTATION = 5;

/** What results depend on of a recipe. */
export type KeyRecipe = Pick<Recipe, 'stations' | 'masks'>;

/** The settings of a station as far as its own result depends on them. */
export function settingsKey(recipe: KeyRecipe, name: StationName): unknown {
  const settings = settingsIn(recipe, name);
  const { cacheKey } = stationOf(name);
  return cacheKey ? cacheKey(settings, recipe.masks) : settings;
}

/** Which of some stations one reads, by its settings. */
export function readsOf(
  recipe: KeyRecipe,
  name: StationName,
  among: readonly Declared[] = stationOf(name).reads,
): StationName[] {
  const { isRead } = stationOf(name);
  const names = among.map((station) => station.name as StationName);
  return isRead ? names.filter((read) => isRead(read, settingsIn(recipe, name), recipe.masks)) : names;
}

/** The stations that one's decision is made from, by its settings. */
export const decidesFromOf = (recipe: KeyRecipe, name: StationName): StationName[] =>
  readsOf(recipe, name, stationOf(name).decidesFrom ?? stationOf(name).reads);

/** Whether a station hands on what it reads as it is, by its settings. */
export const handsOn = (recipe: KeyRecipe, name: StationName): boolean =>
  stationOf(name).handsOn?.(settingsIn(recipe, name)) === true;

function pathKey(recipe: KeyRecipe, name: StationName, frame: Frame): string {
  const before = readsOf(recipe, name).map((read) => pathKey(recipe, read, frame));
  if (handsOn(recipe, name)) return before[0];
  const facts = frameKey(name, frame);
  return keyOf([name, settingsKey(recipe, name), before, ...(facts === null ? [] : [facts])]);
}

/** What comes before a station, without any size: the source, and the settings and facts on the way to it. */
export const originKey = (recipe: KeyRecipe, sha256: string, name: StationName, frame: Frame): string =>
  keyOf([sha256, decidesFromOf(recipe, name).map((read) => pathKey(recipe, read, frame))]);

/** Parts of a station outlive changes of its other dials, so they depend on its input alone. */
export const partsKey = (recipe: KeyRecipe, name: StationName, size: number, inputs: string[]): string =>
  keyOf([COMPUTATION, name, size, inputs.slice(0, readsOf(recipe, name).length)]);

/** What a station's result depends on of the frame, beside the size. */
export const frameKey = (name: StationName, frame: Frame): unknown =>
  stationOf(name).frameFacts?.(frame) ?? null;

/** The masks that any station's result depends on. */
const masksInUse = (recipe: KeyRecipe) => {
  const used = stationList.flatMap(
    ({ name, usedMasks }) => usedMasks?.(settingsIn(recipe, name), recipe.masks) ?? [],
  );
  return recipe.masks.filter((mask) => used.includes(mask));
};

/**
 * A key of all that any result or verdict depends on: the same for recipes between which there is nothing to compute again.
 * Sizes and edges count, names of masks do not.
 */
export const resultKey = (recipe: Recipe): string => {
  const results = stationList.map(({ name, cacheKey }) => {
    const settings = settingsIn(recipe, name);
    // A setting that only the frame is made of is in no cache key.
    return [cacheKey ? cacheKey(settings, recipe.masks) : settings, framed(recipe, name)];
  });
  return keyOf([
    recipe.seed,
    results,
    masksInUse(recipe).map(({ id, parts, wetness }) => [id, parts, wetness]),
  ]);
};

/** What a station sets of the frame, for a source of no particular size. */
const framed = (recipe: Recipe, name: StationName) =>
  stationOf(name).setsFrame?.(settingsIn(recipe, name), { sha256: '', width: 1, height: 1 }, null) ?? null;
