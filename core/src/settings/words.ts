import type { Setting, SettingValue } from './kinds.ts';

/** A setting's value in words, with its unit. */
export function valueWords(setting: Setting, value: SettingValue): string {
  switch (setting.type) {
    case 'number': {
      const decimals = Math.max(0, Math.ceil(-Math.log10(setting.step) - 1e-9));
      return `${(value as number).toFixed(decimals).replace('-', '−')} ${setting.unit}`.trim();
    }
    case 'choice':
      return setting.names[setting.options.indexOf(value as string | number)] ?? String(value);
    case 'flag':
      return value ? 'on' : 'off';
    case 'text':
      return (value as string) || 'not stated';
    case 'list':
      return (value as unknown[]).map((item, place) => setting.itemWords(item, place)).join(', ') || 'none';
    case 'data':
      return setting.words(value);
  }
}
