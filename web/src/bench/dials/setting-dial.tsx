import type { Setting, SettingValue } from '@zesty-tile/core';
import { ChoiceDial } from './choice-dial.tsx';
import { ColourDial } from './colour-dial.tsx';
import { DataDial } from './data-dial.tsx';
import { FlagDial } from './flag-dial.tsx';
import { NumberDial } from './number-dial.tsx';

export interface SettingDialProps<S extends Setting = Setting> {
  setting: S;
  value: SettingValue;
  onChange(value: SettingValue): void;
}

/** One row for a setting of any kind. Lists and texts are shown in words: tools beside the dials edit them. */
export function SettingDial({ setting, value, onChange }: SettingDialProps) {
  switch (setting.type) {
    case 'number':
      return <NumberDial setting={setting} value={value as number} onChange={onChange} />;
    case 'choice':
      return <ChoiceDial setting={setting} value={value as string | number} onChange={onChange} />;
    case 'flag':
      return <FlagDial setting={setting} value={value as boolean} onChange={onChange} />;
    default:
      if (setting.type === 'data' && typeof value === 'string' && value.startsWith('#')) {
        return <ColourDial setting={setting} value={value} onChange={onChange} />;
      }
      return <DataDial setting={setting} value={value} onChange={onChange} />;
  }
}
