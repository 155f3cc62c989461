import * as v from 'valibot';
import {
  albedoBand,
  type ChartLine,
  chartLineSchema,
  lineF0,
  lineOf,
  lineSwatch,
} from '../../../chart/chart.ts';
import { linearOfHex } from '../../../colour/hex.ts';
import { luminanceOf } from '../../../colour/luminance-of.ts';
import { data, number, text } from '../../../settings/kinds.ts';
import { singleValue, type Value, valueKind } from './kind.ts';

/** The colour of a line, brought to the middle of its band of luminance. */
function colourOf(line: ChartLine): [number, number, number] {
  const rgb = linearOfHex(lineSwatch(line));
  const [low, high] = albedoBand(line);
  const scale = Math.sqrt(low * high) / Math.max(1e-6, luminanceOf(...rgb));
  return [0, 1, 2].map((c) => Math.min(1, rgb[c] * scale)) as [number, number, number];
}

/** What a chart line says of each channel: calibrated when it is applied. */
export const line = valueKind({
  title: 'Chart line',
  channels: ['colour', 'roughness', 'metallic', 'f0'],
  settings: {
    line: text({
      label: 'Reference',
      help: 'The surface whose colour, roughness, F0 and metalness are put in.',
      default: 'moss',
      longest: 60,
    }),
    ownLine: data<ChartLine | null>({
      label: 'Custom line',
      help: 'A line of a chart of your own, where “own” is the reference.',
      default: null,
      schema: v.nullable(chartLineSchema),
      example: 'null',
      words: (one) => one?.name ?? 'none',
    }),
    place: number({
      label: 'Place in the band',
      help: 'Where in the line’s band of roughness: 0 is its smoothest, 1 its roughest.',
      default: 0.5,
      min: 0,
      max: 1,
      step: 0.05,
      unit: '',
    }),
  },
  reads: () => [],
  async value({ line: id, ownLine, place }, channel): Promise<Value | null> {
    const found = lineOf({ line: id, ownLine });
    if (!found) return null;
    const [smooth, rough] = found.roughness;
    switch (channel) {
      case 'colour':
        return { kind: 'colour', of: colourOf(found) };
      case 'roughness':
        return singleValue(channel, smooth + place * (rough - smooth));
      case 'metallic':
        return singleValue(channel, found.kind === 'metal' ? 1 : 0);
      case 'f0':
        return { kind: 'colour', of: found.kind === 'metal' ? [0.04, 0.04, 0.04] : lineF0(found) };
      default:
        return null;
    }
  },
});
