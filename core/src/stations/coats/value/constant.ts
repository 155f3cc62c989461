import { linearOfHex } from '../../../colour/hex.ts';
import { colour, number } from '../../../settings/kinds.ts';
import { CHANNELS, isColourChannel } from '../layers.ts';
import { valueKind } from './kind.ts';

/** One colour, value or height. */
export const constant = valueKind({
  title: 'Constant',
  channels: CHANNELS,
  settings: {
    colour: colour({ label: 'Colour', help: 'For colour, emission and F0; sRGB.', default: '#8a8f5a' }),
    amount: number({
      label: 'Value',
      help: 'For roughness, metallic and opacity.',
      default: 0.8,
      min: 0,
      max: 1,
      step: 0.01,
      unit: '',
    }),
    heightMm: number({
      label: 'Height',
      help: 'For height; negative is down.',
      default: 1,
      min: -500,
      max: 500,
      step: 0.1,
      unit: 'mm',
    }),
  },
  reads: () => [],
  async value({ colour: hex, amount, heightMm }, channel) {
    if (isColourChannel(channel)) return { kind: 'colour', of: linearOfHex(hex) };
    return { kind: 'single', of: channel === 'height' ? heightMm : amount };
  },
});
