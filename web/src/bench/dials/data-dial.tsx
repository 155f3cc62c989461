import { type Setting, type SettingValue, stableJson, valueWords } from '@zesty-tile/core';
import { GREY } from '../../theme.ts';
import { DialRow } from './dial-row.tsx';

interface DataDialProps {
  setting: Setting;
  value: SettingValue;
  onChange(value: SettingValue): void;
}

/** One row for what is set by hand on the picture: what it is in words, and the way back. */
export function DataDial({ setting, value, onChange }: DataDialProps) {
  return (
    <DialRow
      setting={setting}
      changed={stableJson(value) !== stableJson(setting.default)}
      onReset={() => onChange(setting.default)}
    >
      <span style={{ color: GREY.soft }}>{valueWords(setting, value)}</span>
    </DialRow>
  );
}
