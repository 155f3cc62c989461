import * as v from 'valibot';

/** Settings that are shown together under a title. */
export interface Group {
  id: string;
  title: string;
  /** Rarely needed: starts collapsed. */
  collapsed: boolean;
  /** Whether the group applies to these values of its station; always where it is left out. */
  visibleWhen?(values: Record<string, SettingValue>): boolean;
}

interface Described {
  /** Name in the interface. */
  label: string;
  /** One line of help. */
  help: string;
  group?: Group;
  /** Belongs to one picture: is not saved for other tiles, and stays as it is when another tile's recipe is applied. */
  ofPicture?: true;
}

export interface NumberSetting extends Described {
  type: 'number';
  default: number;
  min: number;
  max: number;
  step: number;
  unit: string;
}

export interface ChoiceSetting<T extends string | number = string | number> extends Described {
  type: 'choice';
  default: T;
  options: readonly T[];
  /** Words for each option, in the same order. */
  names: readonly string[];
}

export interface FlagSetting extends Described {
  type: 'flag';
  default: boolean;
}

export interface TextSetting extends Described {
  type: 'text';
  default: string;
  /** Fewest and most characters. */
  shortest: number;
  longest: number;
  /** What the text must match, and how that is said: `must be …`. */
  pattern?: { expression: RegExp; words: string };
}

/** Anything that is set by hand on the picture: points, strokes, vectors. JSON data; null is none. */
// biome-ignore lint/suspicious/noExplicitAny: each has a shape of its own, kept by its schema
export interface DataSetting<T = any> extends Described {
  type: 'data';
  default: T;
  schema: v.GenericSchema<T>;
  /** How it is written, for who types it. */
  example: string;
  words(value: T): string;
  /** A list that grows long by hand, such as strokes: stored apart, in sheets named by their hash. */
  onSheets?: true;
}

/** One form that the items of a list may take. */
export interface Variant {
  title: string;
  settings: SettingsOf;
}

/** Items of one form, or of several, each an object of settings. */
// biome-ignore lint/suspicious/noExplicitAny: the items are described by the settings within
export interface ListSetting<T = any> extends Described {
  type: 'list';
  default: T[];
  /** The settings of every item; empty where items take several forms. */
  item: SettingsOf;
  /** The forms items may take, and the key that names an item's form; null where all are alike. */
  variants: { key: string; of: Record<string, Variant> } | null;
  fewest: number;
  most: number;
  /** The key whose value is different in every item, such as an id; null where items are known by their place. */
  identity: string | null;
  /** One item in words: its name, or its kind and place (from 0). */
  itemWords(item: T, place: number): string;
}

export type Setting = NumberSetting | ChoiceSetting | FlagSetting | TextSetting | DataSetting | ListSetting;
export type SettingValue = string | number | boolean | object | null;
export type SettingsOf = { [key: string]: Setting };

/** The plain value of a setting. */
export type ValueOf<S extends Setting> = S extends NumberSetting
  ? number
  : S extends ChoiceSetting<infer T>
    ? T
    : S extends FlagSetting
      ? boolean
      : S extends TextSetting
        ? string
        : S extends DataSetting<infer T>
          ? T
          : S extends ListSetting<infer T>
            ? T[]
            : never;

/** The plain values of a set of settings. */
export type Values<S extends SettingsOf> = { -readonly [K in keyof S]: ValueOf<S[K]> };

/** The plain value of an item that takes one of several forms. */
export type VariantValue<Key extends string, V extends Record<string, Variant>> = {
  [K in keyof V]: { [P in Key]: K } & Values<V[K]['settings']>;
}[keyof V];

/** A group of settings; not collapsed where that is left out. */
export const group = (given: Omit<Group, 'collapsed'> & Partial<Pick<Group, 'collapsed'>>): Group => ({
  collapsed: false,
  ...given,
});

export const number = (setting: Omit<NumberSetting, 'type'>): NumberSetting => ({
  type: 'number',
  ...setting,
});

export const choice = <const T extends string | number>(
  setting: Omit<ChoiceSetting<T>, 'type'>,
): ChoiceSetting<T> => ({ type: 'choice', ...setting });

export const flag = (setting: Omit<FlagSetting, 'type'>): FlagSetting => ({ type: 'flag', ...setting });

/** A text of `shortest` (0 where left out) to `longest` characters. */
export const text = (
  setting: Omit<TextSetting, 'type' | 'shortest'> & Partial<Pick<TextSetting, 'shortest'>>,
): TextSetting => ({ type: 'text', shortest: 0, ...setting });

export const data = <T>(setting: Omit<DataSetting<T>, 'type'>): DataSetting<T> => ({
  type: 'data',
  ...setting,
});

const HEX = v.pipe(v.string(), v.regex(/^#[0-9a-f]{6}$/i, 'must be a colour such as #8a7f70'));

/** A colour, sRGB as #rrggbb. */
export const colour = (setting: Omit<DataSetting<string>, 'type' | 'schema' | 'example' | 'words'>) =>
  data<string>({ ...setting, schema: HEX, example: '"#8a7f70"', words: (value) => value });

interface ListLimits extends Described {
  most: number;
  fewest?: number;
  identity?: string;
}

/** A list whose items are all described by the same settings. Empty by default. */
export const list = <const I extends SettingsOf>({
  fewest = 0,
  identity,
  ...given
}: ListLimits & { item: I; itemWords(item: Values<I>, place: number): string }): ListSetting<Values<I>> => ({
  type: 'list',
  default: [],
  variants: null,
  fewest,
  identity: identity ?? null,
  ...given,
});

/** A list whose items take one of several forms, named by their value of `key`. Empty by default. */
export const variantList = <const Key extends string, const V extends Record<string, Variant>>({
  fewest = 0,
  identity,
  key,
  variants,
  ...given
}: ListLimits & {
  key: Key;
  variants: V;
  itemWords(item: VariantValue<Key, V>, place: number): string;
}): ListSetting<VariantValue<Key, V>> => ({
  type: 'list',
  default: [],
  item: {},
  variants: { key, of: variants },
  fewest,
  identity: identity ?? null,
  ...given,
});

/** The settings of one item of a list, without the key that names its form. */
export function settingsOfItem({ item, variants }: ListSetting, value: Record<string, unknown>): SettingsOf {
  return variants ? (variants.of[String(value[variants.key])]?.settings ?? {}) : item;
}

/** A new item with every setting at its default; `form` names which, where items take several. */
export function newItem<T>({ item, variants }: ListSetting<T>, form = ''): T {
  if (!variants) return defaultsOf(item) as T;
  return { [variants.key]: form, ...defaultsOf(variants.of[form].settings) } as T;
}

/** The default of every setting. */
export function defaultsOf<S extends SettingsOf>(settings: S): Values<S> {
  return Object.fromEntries(Object.entries(settings).map(([key, s]) => [key, s.default])) as Values<S>;
}
