import * as v from 'valibot';
import { Problem } from '../problem.ts';
import {
  type ListSetting,
  type Setting,
  type SettingsOf,
  type SettingValue,
  settingsOfItem,
} from './kinds.ts';
import { schemaOfSetting } from './schema.ts';

const HINT = 'zesty stations lists every setting.';

const problem = (path: string, message: string) => new Problem('bad_setting', message, HINT, path);

/** What a list or data setting takes, as an example. */
const exampleOf = (setting: Setting): string =>
  setting.type === 'data' ? setting.example : JSON.stringify(setting.default);

function readJson(setting: Setting, path: string, text: string): SettingValue {
  const what = `data such as ${exampleOf(setting)}${setting.type === 'data' ? ', or null' : ''}`;
  const wrong = () => problem(path, `${path} takes ${what}, not “${text}”.`);
  let parsed: unknown;
  try {
    parsed = JSON.parse(text);
  } catch {
    // What is a text may be written without quotes.
    if (typeof setting.default !== 'string') throw wrong();
    parsed = text;
  }
  const { success, output, issues } = v.safeParse(schemaOfSetting(setting), parsed);
  if (success) return output as SettingValue;
  const [{ type, message }] = issues;
  throw type === 'check' ? problem(path, `${path}: ${message}`) : wrong();
}

function readText(setting: Setting, path: string, text: string): SettingValue {
  const wrong = (what: string) => problem(path, `${path} takes ${what}, not “${text}”.`);
  switch (setting.type) {
    case 'flag':
      if (text === 'true' || text === 'false') return text === 'true';
      throw wrong('true or false');
    case 'choice': {
      const found = setting.options.find((option) => String(option) === text);
      if (found === undefined) throw wrong(`one of ${setting.options.join(', ')}`);
      return found;
    }
    case 'number': {
      const value = text.trim() === '' ? Number.NaN : Number(text);
      if (Number.isFinite(value) && value >= setting.min && value <= setting.max) return value;
      const unit = setting.unit ? ` (${setting.unit})` : '';
      throw wrong(`a number from ${setting.min} to ${setting.max}${unit}`);
    }
    case 'text': {
      const { success, issues } = v.safeParse(schemaOfSetting(setting), text);
      if (success) return text;
      throw problem(path, `${path} ${issues[0].message}; it is “${text}”.`);
    }
    default:
      return readJson(setting, path, text);
  }
}

type Item = Record<string, SettingValue>;

function assignInList(
  setting: ListSetting,
  items: Item[],
  [place, ...rest]: readonly string[],
  path: string,
  text: string,
): Item[] {
  const k = /^\d+$/.test(place) ? Number(place) : -1;
  if (k < 0 || k >= items.length) {
    const known = items.length === 0 ? 'it is empty' : `it has items 0 to ${items.length - 1}`;
    throw problem(path, `“${place}” in ${path} is not an item of the list: ${known}.`);
  }
  if (rest.length === 0) {
    throw problem(path, `${path} is a whole item: write a setting of it, or the whole list as JSON.`);
  }
  return items.map((item, at) =>
    at === k ? assignText(settingsOfItem(setting, item), item, rest, path, text) : item,
  );
}

/**
 * Values with one setting read from a text. `keys` lead to it: a key, and within a list the place of an item (from 0) and
 * a key of it, at any depth.
 * @throws Problem `bad_setting` that names the key, or what it takes.
 */
export function assignText(
  settings: SettingsOf,
  values: Item,
  [key, ...rest]: readonly string[],
  path: string,
  text: string,
): Item {
  if (!Object.hasOwn(settings, key)) {
    const known = Object.keys(settings).join(', ') || 'none';
    const parent = path
      .split('.')
      .slice(0, -1 - rest.length)
      .join('.');
    throw problem(path, `${parent} has no setting “${key}”; it has ${known}.`);
  }
  const setting = settings[key];
  if (rest.length === 0) return { ...values, [key]: readText(setting, path, text) };
  if (setting.type !== 'list') throw problem(path, `“${path}” is not a setting: ${key} has none within it.`);
  return { ...values, [key]: assignInList(setting, values[key] as Item[], rest, path, text) };
}
