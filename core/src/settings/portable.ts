import { type Setting, type SettingsOf, type SettingValue, settingsOfItem } from './kinds.ts';

type Item = Record<string, SettingValue>;

/** A list's items with what belongs to one picture back at its default. */
function withoutPicture(setting: Setting, value: SettingValue): SettingValue {
  if (setting.type !== 'list') return value;
  return (value as Item[]).map((item) => {
    const changed = Object.entries(settingsOfItem(setting, item)).map(([key, inner]) => [
      key,
      inner.ofPicture ? inner.default : withoutPicture(inner, item[key]),
    ]);
    return { ...item, ...Object.fromEntries(changed) };
  });
}

/** The values that may go to other pictures: without settings that belong to one picture, at any depth. */
export function portable(settings: SettingsOf, values: Item): Item {
  return Object.fromEntries(
    Object.entries(settings)
      .filter(([, setting]) => !setting.ofPicture)
      .map(([key, setting]) => [key, withoutPicture(setting, values[key])]),
  );
}
