import type { View } from '../view.ts';
import type { StyleOutput } from './output.ts';

interface Outputs {
  style?: StyleOutput;
}

export const views = {
  styled: {
    title: 'Painted',
    kind: 'colour',
    before: 'joined',
    raster: ({ style }: Outputs) => (style ? (style.painted ?? style.picture) : null),
  },
  simplified: {
    title: 'Simplified',
    kind: 'colour',
    before: 'joined',
    raster: ({ style }: Outputs) => (style ? (style.simplified ?? style.picture) : null),
  },
} satisfies Record<string, View>;
