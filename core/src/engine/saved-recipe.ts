import * as v from 'valibot';
import { Problem } from '../problem.ts';
import type { SettingsOf } from '../settings/settings.ts';
import { STATIONS, type StationSettings } from '../stations/index.ts';
import { STATION_NAMES, type StationName } from '../stations/types.ts';
import { parseRecipe, RECIPE_VERSION, type Recipe } from './recipe.ts';

/** Settings of whole or chosen stations, without what belongs to one picture. */
export type SavedStations = { [K in StationName]?: Partial<StationSettings[K]> };

/** Every station but Source has something to save. */
export const SAVABLE = STATION_NAMES.filter((name) =>
  Object.values(STATIONS[name].settings as SettingsOf).some((setting) => !setting.ofPicture),
);

/** The chosen stations of a recipe, without what belongs to its picture (crop, turn, edge). */
export function stationsToSave(recipe: Recipe, names: readonly StationName[]): SavedStations {
  const chosen = SAVABLE.filter((name) => names.includes(name));
  return Object.fromEntries(
    chosen.map((name) => {
      const kept = Object.entries(STATIONS[name].settings as SettingsOf).filter(([, s]) => !s.ofPicture);
      const values = recipe.stations[name] as Record<string, unknown>;
      const portable = kept.map(([key, setting]) => [
        key,
        setting.type === 'data' && setting.forOthers ? setting.forOthers(values[key]) : values[key],
      ]);
      return [name, Object.fromEntries(portable)];
    }),
  );
}

/** The recipe with saved stations put in. What belongs to its own picture stays, decisions are made anew where needed. */
export function applySaved(recipe: Recipe, saved: SavedStations): Recipe {
  const stations: Record<string, object> = { ...recipe.stations };
  for (const [name, values] of Object.entries(saved)) stations[name] = { ...stations[name], ...values };
  return { ...recipe, stations: stations as unknown as StationSettings };
}

const looseSchema = v.record(v.string(), v.record(v.string(), v.unknown()));

/** Saved stations as sound data. @throws Problem `bad_recipe` that names what is wrong. */
export function parseSaved(value: unknown): SavedStations {
  const loose = v.safeParse(looseSchema, value);
  if (!loose.success || Object.keys(loose.output).length === 0) {
    throw new Problem(
      'bad_recipe',
      'The recipe holds no stations.',
      'Choose at least one station to save.',
      'stations',
    );
  }
  const whole = parseRecipe({ version: RECIPE_VERSION, stations: value });
  const bound = Object.entries(loose.output).flatMap(([name, values]) => {
    const settings = STATIONS[name as StationName].settings as SettingsOf;
    return Object.keys(values)
      .filter((key) => settings[key].ofPicture)
      .map((key) => `${name}.${key}`);
  });
  if (bound.length > 0) {
    throw new Problem(
      'bad_recipe',
      `“${bound.join('”, “')}” belongs to one picture and cannot be saved for others.`,
      'Leave it out.',
    );
  }
  return Object.fromEntries(
    Object.entries(loose.output).map(([name, values]) => {
      const checked = whole.stations[name as StationName] as Record<string, unknown>;
      return [name, Object.fromEntries(Object.keys(values).map((key) => [key, checked[key]]))];
    }),
  );
}
