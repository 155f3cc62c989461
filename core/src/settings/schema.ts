import * as v from 'valibot';
import type { ListSetting, Setting, SettingsOf, TextSetting, Values } from './kinds.ts';

function textSchema({ shortest, longest, pattern }: TextSetting): v.GenericSchema {
  const whole = v.pipe(
    v.string('must be a text'),
    v.minLength(shortest, `must have at least ${shortest} characters`),
    v.maxLength(longest, `must have at most ${longest} characters`),
  );
  return pattern ? v.pipe(whole, v.regex(pattern.expression, pattern.words)) : whole;
}

const variantSchema = ({ key, of }: NonNullable<ListSetting['variants']>): v.GenericSchema =>
  v.variant(
    key,
    Object.entries(of).map(
      ([name, { settings }]) => v.strictObject({ [key]: v.literal(name), ...entriesOf(settings) }) as never,
    ),
  );

function listSchema({ item, variants, fewest, most, identity }: ListSetting): v.GenericSchema {
  const one = variants ? variantSchema(variants) : v.strictObject(entriesOf(item));
  const all = v.pipe(
    v.array(one),
    v.minLength(fewest, `must have at least ${fewest}`),
    v.maxLength(most, `must have at most ${most}`),
  );
  if (!identity) return all;
  const isUnique = (items: unknown[]) =>
    new Set(items.map((value) => (value as Record<string, unknown>)[identity])).size === items.length;
  return v.pipe(all, v.check(isUnique, `must not have the same ${identity} twice`));
}

/** The Valibot schema of one setting's value. */
export function schemaOfSetting(setting: Setting): v.GenericSchema {
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
    case 'text':
      return textSchema(setting);
    case 'list':
      return listSchema(setting);
    case 'data':
      return setting.schema;
  }
}

const entriesOf = (settings: SettingsOf) =>
  Object.fromEntries(
    Object.entries(settings).map(([key, setting]) => [
      key,
      v.optional(schemaOfSetting(setting), setting.default),
    ]),
  );

/** A strict Valibot schema of the settings in which each may be left out (its default then applies). */
export const schemaOf = <S extends SettingsOf>(settings: S): v.GenericSchema<Partial<Values<S>>, Values<S>> =>
  v.strictObject(entriesOf(settings)) as unknown as v.GenericSchema<Partial<Values<S>>, Values<S>>;
