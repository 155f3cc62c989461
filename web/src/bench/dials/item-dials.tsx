import type { SettingsOf, SettingValue } from '@zesty-tile/core';
import { SettingDial } from './setting-dial.tsx';

interface ItemDialsProps {
  settings: SettingsOf;
  values: Record<string, SettingValue>;
  /** Settings that are edited by other means, or elsewhere. */
  without?: readonly string[];
  onChange(key: string, value: SettingValue): void;
}

/** A dial for each setting of an item of a list. */
export const ItemDials = ({ settings, values, without = [], onChange }: ItemDialsProps) =>
  Object.entries(settings)
    .filter(([key]) => !without.includes(key))
    .map(([key, setting]) => (
      <SettingDial
        key={key}
        setting={setting}
        value={values[key]}
        onChange={(value) => onChange(key, value)}
      />
    ));
