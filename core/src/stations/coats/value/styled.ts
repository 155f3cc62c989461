import { valueKind } from './kind.ts';

/** The tile as Style paints it, calibrated as Gauge calibrates the rest; nothing where Style does not paint. */
export const styled = valueKind({
  title: 'Painted by Style',
  channels: ['colour'],
  settings: {},
  reads: () => [],
  async value(_given, _channel, { input: { style, gauge } }) {
    return style.painted ? { kind: 'colour', of: gauge.painted ?? gauge.albedo } : null;
  },
});
