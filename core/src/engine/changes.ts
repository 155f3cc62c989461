import type { Setting, SettingsOf } from '../settings/settings.ts';
import { STATIONS } from '../stations/index.ts';
import { STATION_NAMES, type StationName } from '../stations/types.ts';
import type { Recipe } from './recipe.ts';

type Value = string | number | boolean;

/** One setting that differs between two recipes. */
export interface Change {
  station: StationName;
  key: string;
  setting: Setting;
  from: Value;
  to: Value;
}

/** What differs between two recipes, in the order of the Course. Decisions follow from it and do not count. */
export function changesBetween(before: Pick<Recipe, 'stations'>, after: Pick<Recipe, 'stations'>): Change[] {
  const found: Change[] = [];
  for (const station of STATION_NAMES) {
    const from = before.stations[station] as Record<string, Value>;
    const to = after.stations[station] as Record<string, Value>;
    if (from === to) continue;
    for (const [key, setting] of Object.entries(STATIONS[station].settings as SettingsOf)) {
      if (from[key] !== to[key]) found.push({ station, key, setting, from: from[key], to: to[key] });
    }
  }
  return found;
}

/** A setting's value in words, with its unit. */
export function valueWords(setting: Setting, value: Value): string {
  switch (setting.type) {
    case 'number': {
      const decimals = Math.max(0, Math.ceil(-Math.log10(setting.step) - 1e-9));
      return `${(value as number).toFixed(decimals).replace('-', '−')} ${setting.unit}`.trim();
    }
    case 'choice':
      return setting.names[setting.options.indexOf(value as string | number)] ?? String(value);
    case 'flag':
      return value ? 'on' : 'off';
  }
}
