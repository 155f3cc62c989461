import { newRecipe, type Recipe } from '@zesty-tile/core';
import { useSettings } from '../settings/settings.ts';

/** Settings a new tile starts with, where they are not the usual ones. */
export type FirstSettings = { [S in keyof Recipe['stations']]?: Partial<Recipe['stations'][S]> };

/** The recipe a new tile starts with: defaults, the size and edge chosen in Settings, and what is known of it. */
export function firstRecipe(first: FirstSettings): Recipe {
  const { size, edgeMetres } = useSettings.getState();
  const recipe = newRecipe();
  const stations = { ...recipe.stations, square: { ...recipe.stations.square, size, edgeMetres } };
  const changed = Object.fromEntries(
    Object.entries(stations).map(([name, settings]) => [
      name,
      { ...settings, ...first[name as keyof FirstSettings] },
    ]),
  );
  return { ...recipe, stations: changed as unknown as Recipe['stations'] };
}
