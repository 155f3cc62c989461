import { Problem } from '../problem.ts';
import { assignText } from '../settings/assign-text.ts';
import type { SettingValue } from '../settings/kinds.ts';
import { STATION_NAMES, type StationName } from '../stations/index.ts';
import { parseRecipe, type Recipe } from './recipe.ts';
import { isRootName, ROOT_SETTINGS, settingsOf } from './sections.ts';

type Loose = Record<string, SettingValue>;

/**
 * The recipe with one setting read from a text. The path is `station.key` or `masks`, and goes on into the items of a list
 * by their place from 0, as in `masks.2.parts.0.softness`.
 * @throws Problem `bad_setting` that names the key, or the allowed range.
 */
export function assignSetting(recipe: Recipe, path: string, text: string): Recipe {
  const [section, ...keys] = path.split('.');
  if (isRootName(section)) {
    const values = { [section]: recipe[section] } as Loose;
    return parseRecipe({ ...recipe, ...assignText(ROOT_SETTINGS, values, [section, ...keys], path, text) });
  }
  if (!STATION_NAMES.includes(section as StationName) || !keys[0]) {
    throw new Problem(
      'bad_setting',
      `“${path}” is not a setting: write <station>.<key>, with one of ${STATION_NAMES.join(', ')}; or masks.`,
      'zesty stations lists every setting.',
      path,
    );
  }
  const name = section as StationName;
  const changed = assignText(settingsOf(name), recipe.stations[name] as Loose, keys, path, text);
  return parseRecipe({ ...recipe, stations: { ...recipe.stations, [name]: changed } });
}
