import { keyOf } from '../hashing/key-of.ts';
import {
  type ListSetting,
  type Setting,
  type SettingsOf,
  type SettingValue,
  settingsOfItem,
} from './kinds.ts';

/** A setting whose value differs, at any depth. */
export interface Difference {
  /** Where it is: keys and places from the outermost settings on, as in `masks.2.parts.0.softness`. */
  path: string[];
  setting: Setting;
  /** The items it is within, in words, from the outermost on. */
  within: string[];
  from: SettingValue;
  to: SettingValue;
}

type Item = Record<string, SettingValue>;

const isSame = (a: unknown, b: unknown): boolean => a === b || keyOf(a) === keyOf(b);

/** Pairs of items to compare one by one, with the place of each in the later list; null where the lists do not correspond. */
function pairs(setting: ListSetting, from: Item[], to: Item[]): [before: Item, after: Item, place: number][] {
  const { identity, variants } = setting;
  if (identity) {
    return to.flatMap((after, place): [Item, Item, number][] => {
      const before = from.find((one) => one[identity] === after[identity]);
      return before ? [[before, after, place]] : [];
    });
  }
  const isAlike = (after: Item, place: number) =>
    !variants || from[place][variants.key] === after[variants.key];
  if (from.length !== to.length || !to.every(isAlike)) return [];
  return to.map((after, place) => [from[place], after, place]);
}

/** Whether items were added, removed, moved or took another form: what cannot be seen within any one item. */
function isRearranged(setting: ListSetting, from: Item[], to: Item[]): boolean {
  if (from.length !== to.length) return true;
  const key = setting.identity ?? setting.variants?.key;
  return key !== undefined && to.some((item, place) => item[key] !== from[place][key]);
}

/** Every setting that differs between two sets of values, in the order of the settings; of lists, item by item. */
export function differences(
  settings: SettingsOf,
  from: Record<string, SettingValue>,
  to: Record<string, SettingValue>,
): Difference[] {
  return Object.entries(settings).flatMap(([key, setting]): Difference[] => {
    if (isSame(from[key], to[key])) return [];
    const whole: Difference = { path: [key], setting, within: [], from: from[key], to: to[key] };
    if (setting.type !== 'list') return [whole];
    const [before, after] = [from[key] as Item[], to[key] as Item[]];
    const inItems = pairs(setting, before, after).flatMap(([earlier, later, place]) =>
      differences(settingsOfItem(setting, later), earlier, later).map((one) => ({
        ...one,
        path: [key, String(place), ...one.path],
        within: [setting.itemWords(later, place), ...one.within],
      })),
    );
    return isRearranged(setting, before, after) ? [whole, ...inItems] : inItems;
  });
}
