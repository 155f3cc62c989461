import * as v from 'valibot';
import { Problem } from '../problem.ts';
import type { Setting, SettingsOf, SettingValue } from '../settings/settings.ts';
import { STATIONS } from '../stations/index.ts';
import { STATION_NAMES, type StationName } from '../stations/types.ts';
import { parseRecipe, type Recipe } from './recipe.ts';

function read(setting: Setting, path: string, text: string): SettingValue {
  const wrong = (what: string) =>
    new Problem(
      'bad_setting',
      `${path} takes ${what}, not “${text}”.`,
      'zesty stations lists every setting.',
      path,
    );
  if (setting.type === 'flag') {
    if (text === 'true' || text === 'false') return text === 'true';
    throw wrong('true or false');
  }
  if (setting.type === 'choice') {
    const found = setting.options.find((option) => String(option) === text);
    if (found === undefined) throw wrong(`one of ${setting.options.join(', ')}`);
    return found;
  }
  if (setting.type === 'data') {
    const what = `data such as ${setting.example}, or null`;
    let parsed: unknown;
    try {
      parsed = JSON.parse(text);
    } catch {
      // What is a text may be written without quotes.
      if (typeof setting.default !== 'string') throw wrong(what);
      parsed = text;
    }
    const { success, issues } = v.safeParse(setting.schema, parsed);
    if (success) return parsed as SettingValue;
    const [{ type, message }] = issues;
    if (type !== 'check') throw wrong(what);
    throw new Problem('bad_setting', `${path}: ${message}`, 'zesty stations lists every setting.', path);
  }
  const value = text.trim() === '' ? Number.NaN : Number(text);
  if (!Number.isFinite(value) || value < setting.min || value > setting.max) {
    throw wrong(`a number from ${setting.min} to ${setting.max}${setting.unit ? ` (${setting.unit})` : ''}`);
  }
  return value;
}

/**
 * The recipe with one setting changed, written as `station.key` and a text.
 * @throws Problem `bad_setting` that names the key, or the allowed range.
 */
export function assignSetting(recipe: Recipe, path: string, text: string): Recipe {
  const [name, key, ...rest] = path.split('.');
  if (!STATION_NAMES.includes(name as StationName) || !key || rest.length > 0) {
    throw new Problem(
      'bad_setting',
      `“${path}” is not a setting: write <station>.<key>, with one of ${STATION_NAMES.join(', ')}.`,
      'zesty stations lists every setting.',
      path,
    );
  }
  const settings = STATIONS[name as StationName].settings as SettingsOf;
  if (!Object.hasOwn(settings, key)) {
    const known = Object.keys(settings).join(', ') || 'none';
    throw new Problem(
      'bad_setting',
      `${name} has no setting “${key}”; it has ${known}.`,
      'zesty stations lists every setting.',
      path,
    );
  }
  const stations = {
    ...recipe.stations,
    [name]: { ...recipe.stations[name as StationName], [key]: read(settings[key], path, text) },
  };
  return parseRecipe({ ...recipe, stations });
}
