import { differences } from '../settings/differences.ts';
import type { Setting, SettingValue } from '../settings/kinds.ts';
import { STATION_NAMES } from '../stations/index.ts';
import { type RecipeValues, ROOT_NAMES, ROOT_SETTINGS, type Section, settingsOf } from './sections.ts';

/** One setting that differs between two recipes, at any depth. */
export interface Change {
  section: Section;
  /** Where in its section: a key, and within lists the places and keys that lead to it. */
  key: string;
  setting: Setting;
  /** Names of the items it is within, from the outermost on. */
  within: string[];
  from: SettingValue;
  to: SettingValue;
}

type Loose = Record<string, SettingValue>;

/** What differs between two recipes, in the order of the Course. Decisions follow from it and do not count. */
export function changesBetween(before: RecipeValues, after: RecipeValues): Change[] {
  const root = ROOT_NAMES.flatMap((section) => {
    const setting = { [section]: ROOT_SETTINGS[section] };
    return differences(setting, before as unknown as Loose, after as unknown as Loose).map(
      ({ path, ...found }) => ({ section, key: path.slice(1).join('.') || section, ...found }),
    );
  });
  const ofStations = STATION_NAMES.flatMap((section) => {
    const [from, to] = [before.stations[section] as Loose, after.stations[section] as Loose];
    if (from === to) return [];
    return differences(settingsOf(section), from, to).map(({ path, ...found }) => ({
      section,
      key: path.join('.'),
      ...found,
    }));
  });
  return [...root, ...ofStations];
}

/** What a change is of, in words: the items it is within, and its label. */
export const changeWords = ({ within, setting }: Change): string => [...within, setting.label].join(', ');
