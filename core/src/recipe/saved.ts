import * as v from 'valibot';
import { Problem } from '../problem.ts';
import type { SettingValue } from '../settings/kinds.ts';
import { portable } from '../settings/portable.ts';
import { STATION_NAMES, type StationName, type StationSettings } from '../stations/index.ts';
import { migrated, RECIPE_VERSION } from './migrate.ts';
import { parseRecipe, type Recipe } from './recipe.ts';
import {
  isRootName,
  ROOT_SETTINGS,
  type RootSettings,
  SECTIONS,
  type Section,
  settingsOf,
} from './sections.ts';

/** Chosen sections of a recipe for other tiles, without what belongs to one picture. */
export interface SavedRecipe extends Partial<RootSettings> {
  version: typeof RECIPE_VERSION;
  stations: { [K in StationName]?: Partial<StationSettings[K]> };
}

type Loose = Record<string, SettingValue>;

/** Every section but Source has something to save. */
export const SAVABLE: readonly Section[] = SECTIONS.filter(
  (name) => isRootName(name) || Object.values(settingsOf(name)).some((setting) => !setting.ofPicture),
);

/** The sections that a saved recipe has values for. */
export const sectionsOf = (saved: SavedRecipe): Section[] =>
  SAVABLE.filter((name) => (isRootName(name) ? saved[name] !== undefined : name in saved.stations));

/** The chosen sections of a recipe, without what belongs to its picture (crop, turn, edge, strokes). */
export function sectionsToSave(recipe: Recipe, names: readonly Section[]): SavedRecipe {
  const chosen = SAVABLE.filter((name) => names.includes(name));
  const root = chosen.filter(isRootName).map((name) => {
    const values = { [name]: recipe[name] } as Loose;
    return [name, portable(ROOT_SETTINGS, { ...recipe, ...values } as unknown as Loose)[name]];
  });
  const stations = chosen
    .filter((name): name is StationName => !isRootName(name))
    .map((name) => [name, portable(settingsOf(name), recipe.stations[name] as Loose)]);
  return {
    version: RECIPE_VERSION,
    ...Object.fromEntries(root),
    stations: Object.fromEntries(stations),
  };
}

/** The recipe with a saved one applied. What belongs to its own picture stays; decisions are made again where needed. */
export function applySaved(recipe: Recipe, saved: SavedRecipe): Recipe {
  const { version: _version, stations: changes, ...root } = saved;
  const stations: Record<string, object> = { ...recipe.stations };
  for (const [name, values] of Object.entries(changes)) stations[name] = { ...stations[name], ...values };
  return { ...recipe, ...root, stations: stations as unknown as StationSettings };
}

const looseSchema = v.looseObject({ stations: v.record(v.string(), v.record(v.string(), v.unknown())) });

/** A saved recipe of the first version is its stations alone. */
const isFirstVersion = (value: unknown): boolean =>
  value !== null && typeof value === 'object' && !('version' in value);

/**
 * A valid saved recipe of the present version, from one of any version.
 * @throws Problem `bad_recipe` that names what is wrong.
 */
export function parseSaved(value: unknown): SavedRecipe {
  const given = migrated(isFirstVersion(value) ? { version: 1, stations: value } : value);
  const loose = v.safeParse(looseSchema, given);
  const names = loose.success ? Object.keys(loose.output.stations) : [];
  const root = loose.success ? Object.keys(loose.output).filter(isRootName) : [];
  if (!loose.success || names.length + root.length === 0) {
    throw new Problem(
      'bad_recipe',
      'The recipe has no stations in it.',
      'Choose at least one station to save.',
      'stations',
    );
  }
  const { stations } = loose.output;
  const whole = parseRecipe(given);
  const ofPicture = names.flatMap((name) =>
    Object.keys(stations[name])
      .filter((key) => settingsOf(name as StationName)[key].ofPicture)
      .map((key) => `${name}.${key}`),
  );
  if (ofPicture.length > 0) {
    throw new Problem(
      'bad_recipe',
      `“${ofPicture.join('”, “')}” belongs to one picture and cannot be saved for others.`,
      'Remove it.',
    );
  }
  const checked = STATION_NAMES.filter((name) => names.includes(name)).map((name) => {
    const values = whole.stations[name] as Loose;
    return [name, Object.fromEntries(Object.keys(stations[name]).map((key) => [key, values[key]]))];
  });
  return {
    version: RECIPE_VERSION,
    ...Object.fromEntries(root.map((name) => [name, whole[name]])),
    stations: Object.fromEntries(checked),
  };
}
