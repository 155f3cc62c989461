import { contentKey } from '../hashing/content-key.ts';
import {
  type ListSetting,
  type Setting,
  type SettingsOf,
  type SettingValue,
  settingsOfItem,
} from '../settings/kinds.ts';
import { STATION_NAMES, type StationSettings } from '../stations/index.ts';
import type { Recipe } from './recipe.ts';
import { ROOT_SETTINGS, settingsOf } from './sections.ts';
import { isSheetRef, type Sheet, type SheetRef } from './sheet-ref.ts';

/**
 * Strokes on one sheet. A list of strokes is cut into sheets of this many, so that one more stroke makes one new sheet and not a
 * copy of all.
 */
const SHEET_LENGTH = 32;

/** A recipe as it is stored: lists of strokes are named by the hashes of their sheets. */
export type StoredRecipe = Omit<Recipe, 'stations' | 'masks'> & { stations: object; masks: unknown };

type Values = Record<string, SettingValue>;

/** Sheets that were cut before, by their first stroke. Strokes are never changed in place. */
const known = new WeakMap<object, { sheet: Sheet; hash: string }>();

/** The sheet from a place of a list on, and its hash; of the same strokes it is the same sheet. */
function sheetAt(all: Sheet, from: number): { sheet: Sheet; hash: string } {
  const sheet = all.slice(from, from + SHEET_LENGTH);
  const first = sheet[0] as object;
  const kept = known.get(first);
  if (kept?.sheet.length === sheet.length && kept.sheet.every((stroke, k) => stroke === sheet[k]))
    return kept;
  const cut = { sheet, hash: contentKey(sheet) };
  known.set(first, cut);
  return cut;
}

function detachValue(setting: Setting, value: SettingValue, sheets: Map<string, Sheet>): SettingValue {
  if (setting.type === 'list') return detachItems(setting, value as Values[], sheets);
  if (setting.type !== 'data' || !setting.onSheets) return value;
  const all = value as Sheet;
  if (all.length === 0) return value;
  const hashes: string[] = [];
  for (let from = 0; from < all.length; from += SHEET_LENGTH) {
    const { sheet, hash } = sheetAt(all, from);
    sheets.set(hash, sheet);
    hashes.push(hash);
  }
  return { sheets: hashes } satisfies SheetRef;
}

const detachItems = (setting: ListSetting, items: Values[], sheets: Map<string, Sheet>): Values[] =>
  items.map((item) => ({ ...item, ...detachAll(settingsOfItem(setting, item), item, sheets) }));

const detachAll = (settings: SettingsOf, values: Values, sheets: Map<string, Sheet>): Values =>
  Object.fromEntries(
    Object.entries(settings).map(([key, setting]) => [key, detachValue(setting, values[key], sheets)]),
  );

/** A recipe without its strokes, and the sheets they are on, by the hash of each. Sheets are hashed once. */
export function detachSheets(recipe: Recipe): { stored: StoredRecipe; sheets: Map<string, Sheet> } {
  const sheets = new Map<string, Sheet>();
  const root = detachAll(ROOT_SETTINGS, recipe as unknown as Values, sheets) as { masks: unknown };
  const stations = Object.fromEntries(
    STATION_NAMES.map((name) => [
      name,
      detachAll(settingsOf(name), recipe.stations[name as keyof StationSettings] as Values, sheets),
    ]),
  );
  return { stored: { ...recipe, ...root, stations }, sheets };
}

/** The hashes of all sheets that stored data refers to. */
export function sheetsIn(stored: unknown): string[] {
  if (isSheetRef(stored)) return stored.sheets;
  if (stored === null || typeof stored !== 'object') return [];
  return Object.values(stored).flatMap(sheetsIn);
}

/**
 * Stored data with its strokes in place of the references to their sheets; `find` gives a sheet by its hash. Data without
 * references, such as recipes stored whole, comes back as it was.
 */
export function attachSheets(stored: unknown, find: (hash: string) => Sheet): unknown {
  if (isSheetRef(stored)) return stored.sheets.flatMap(find);
  if (stored === null || typeof stored !== 'object') return stored;
  if (Array.isArray(stored)) return stored.map((value) => attachSheets(value, find));
  return Object.fromEntries(Object.entries(stored).map(([key, value]) => [key, attachSheets(value, find)]));
}
