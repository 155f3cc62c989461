import type { Setting, SettingsOf, SettingValue } from '../settings/settings.ts';
import { STATIONS } from '../stations/index.ts';
import { STATION_NAMES, type StationName } from '../stations/types.ts';
import { stableJson } from './hash.ts';
import type { Recipe } from './recipe.ts';

/** One setting that differs between two recipes. */
export interface Change {
  station: StationName;
  key: string;
  setting: Setting;
  from: SettingValue;
  to: SettingValue;
}

/** What differs between two recipes, in the order of the Course. Decisions follow from it and do not count. */
export function changesBetween(before: Pick<Recipe, 'stations'>, after: Pick<Recipe, 'stations'>): Change[] {
  const found: Change[] = [];
  for (const station of STATION_NAMES) {
    const from = before.stations[station] as Record<string, SettingValue>;
    const to = after.stations[station] as Record<string, SettingValue>;
    if (from === to) continue;
    for (const [key, setting] of Object.entries(STATIONS[station].settings as SettingsOf)) {
      const same = from[key] === to[key] || stableJson(from[key]) === stableJson(to[key]);
      if (!same) found.push({ station, key, setting, from: from[key], to: to[key] });
    }
  }
  return found;
}

/** A setting's value in words, with its unit. */
export function valueWords(setting: Setting, value: SettingValue): string {
  switch (setting.type) {
    case 'number': {
      const decimals = Math.max(0, Math.ceil(-Math.log10(setting.step) - 1e-9));
      return `${(value as number).toFixed(decimals).replace('-', '−')} ${setting.unit}`.trim();
    }
    case 'choice':
      return setting.names[setting.options.indexOf(value as string | number)] ?? String(value);
    case 'flag':
      return value ? 'on' : 'off';
    case 'data':
      return setting.words(value);
  }
}
