import { masks } from '../masks/masks-setting.ts';
import type { SettingsOf, Values } from '../settings/kinds.ts';
import { STATION_NAMES, STATIONS, type StationName, type StationSettings } from '../stations/index.ts';

/** Settings at the root of a recipe, which several stations use. */
export const ROOT_SETTINGS = { masks };
export type RootSettings = Values<typeof ROOT_SETTINGS>;
export type RootName = keyof RootSettings;
export const ROOT_NAMES = Object.keys(ROOT_SETTINGS) as RootName[];

/** A part of a recipe: a setting at its root, or all settings of a station. */
export type Section = RootName | StationName;
export const SECTIONS: readonly Section[] = [...ROOT_NAMES, ...STATION_NAMES];

export const isRootName = (section: string): section is RootName => Object.hasOwn(ROOT_SETTINGS, section);

/** The name of each section in the interface. */
export const SECTION_WORDS = Object.fromEntries(
  SECTIONS.map((name) => [
    name,
    isRootName(name) ? ROOT_SETTINGS[name].label : `${name[0].toUpperCase()}${name.slice(1)}`,
  ]),
) as Record<Section, string>;

/** The settings of one station, of all that is known of their types. */
export const settingsOf = (name: StationName): SettingsOf => STATIONS[name].settings as SettingsOf;

/** The parts of a recipe that settings are in. */
export interface RecipeValues extends RootSettings {
  stations: StationSettings;
}
