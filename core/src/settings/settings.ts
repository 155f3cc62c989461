import * as v from 'valibot';

interface Described {
  /** Name in the interface. */
  label: string;
  /** One line of help. */
  help: string;
  /** Dials of one group stand together; rarer groups may fold away. */
  group?: string;
  /** Belongs to the picture at hand: stays as it is when another tile's recipe is applied. */
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

/** Anything that is set by hand on the picture: points, strokes, vectors. JSON data; null is none. */
// biome-ignore lint/suspicious/noExplicitAny: each has a shape of its own, kept by its schema
export interface DataSetting<T = any> extends Described {
  type: 'data';
  default: T;
  schema: v.GenericSchema<T>;
  /** How it is written, for who types it. */
  example: string;
  words(value: T): string;
  /** What of it may go to other pictures with a saved recipe, where that is not all. */
  forOthers?(value: T): T;
}

export type Setting = NumberSetting | ChoiceSetting | FlagSetting | DataSetting;
export type SettingValue = string | number | boolean | object | null;
export type SettingsOf = Record<string, Setting>;

/** The plain values of a set of settings. */
export type Values<S extends SettingsOf> = {
  [K in keyof S]: S[K] extends NumberSetting
    ? number
    : S[K] extends ChoiceSetting<infer T>
      ? T
      : S[K] extends FlagSetting
        ? boolean
        : S[K] extends DataSetting<infer T>
          ? T
          : never;
};

export const number = (setting: Omit<NumberSetting, 'type'>): NumberSetting => ({
  type: 'number',
  ...setting,
});

export const choice = <const T extends string | number>(
  setting: Omit<ChoiceSetting<T>, 'type'>,
): ChoiceSetting<T> => ({ type: 'choice', ...setting });

export const flag = (setting: Omit<FlagSetting, 'type'>): FlagSetting => ({ type: 'flag', ...setting });

export const data = <T>(setting: Omit<DataSetting<T>, 'type'>): DataSetting<T> => ({
  type: 'data',
  ...setting,
});

/** A colour, sRGB as #rrggbb. */
export const colour = (setting: Omit<DataSetting<string>, 'type' | 'schema' | 'example' | 'words'>) =>
  data<string>({
    ...setting,
    schema: v.pipe(v.string(), v.regex(/^#[0-9a-f]{6}$/i, 'must be a colour such as #8a7f70')),
    example: '"#8a7f70"',
    words: (value) => value,
  });

/** The default of every setting. */
export function defaultsOf<S extends SettingsOf>(settings: S): Values<S> {
  return Object.fromEntries(Object.entries(settings).map(([key, s]) => [key, s.default])) as Values<S>;
}

function one(setting: Setting): v.GenericSchema {
  switch (setting.type) {
    case 'number':
      return v.pipe(
        v.number(`must be a number from ${setting.min} to ${setting.max}`),
        v.finite(`must be a number from ${setting.min} to ${setting.max}`),
        v.minValue(setting.min, `must be at least ${setting.min}`),
        v.maxValue(setting.max, `must be at most ${setting.max}`),
      );
    case 'choice':
      return v.picklist(setting.options, `must be one of ${setting.options.join(', ')}`);
    case 'flag':
      return v.boolean('must be true or false');
    case 'data':
      return setting.schema;
  }
}

/** A strict Valibot schema of the settings in which each may be left out (its default then holds). */
export function schemaOf<S extends SettingsOf>(settings: S): v.GenericSchema<Partial<Values<S>>, Values<S>> {
  const entries = Object.fromEntries(
    Object.entries(settings).map(([key, s]) => [key, v.optional(one(s), s.default)]),
  );
  return v.strictObject(entries) as unknown as v.GenericSchema<Partial<Values<S>>, Values<S>>;
}
