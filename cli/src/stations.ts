import { type Setting, type SettingsOf, STATION_NAMES, STATIONS } from '@zesty-tile/core';

const range = (s: Setting) =>
  s.type === 'number'
    ? `${s.min} … ${s.max}${s.unit ? ` ${s.unit}` : ''}`
    : s.type === 'choice'
      ? s.options.join(' | ')
      : s.type === 'data'
        ? `JSON: null or ${s.example}`
        : 'true | false';

const rows = () =>
  STATION_NAMES.flatMap((name) =>
    Object.entries(STATIONS[name].settings as SettingsOf).map(([key, s]) => ({
      station: name,
      key: `${name}.${key}`,
      type: s.type,
      range: range(s),
      ...(s.type === 'number' ? { min: s.min, max: s.max, unit: s.unit } : {}),
      ...(s.type === 'choice' ? { options: s.options } : {}),
      default: s.default,
      help: s.help,
    })),
  );

/** `zesty stations`: every setting with its type, range, default and a line of help. */
export function stations(options: { json: boolean }): void {
  const list = rows();
  if (options.json) {
    process.stdout.write(`${JSON.stringify(list, null, 2)}\n`);
    return;
  }
  for (const name of STATION_NAMES) {
    process.stdout.write(`${name}: ${STATIONS[name].line}\n`);
    for (const row of list.filter((r) => r.station === name)) {
      process.stdout.write(
        `  ${row.key}  ${row.type}  ${row.range}  default ${row.default}\n      ${row.help}\n`,
      );
    }
  }
}
