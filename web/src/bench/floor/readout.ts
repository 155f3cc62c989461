import { linearToSrgb } from '@zesty-tile/core';
import type { ShownView } from '../../engine/protocol.ts';
import { viewKind } from '../../engine/views.ts';

const pad = (n: number) => String(n).padStart(4, ' ');
const signed = (v: number) => (v < 0 ? '−' : '+') + Math.abs(v).toFixed(3);

/** The values under a pixel in words: sRGB and Y for colour, the value with its unit for data. */
export function readoutAt(shown: ShownView, x: number, y: number, depthMm: number): string {
  const values = shown.planes.map((plane) => plane[y * shown.width + x]);
  const place = `x ${pad(x)} y ${pad(y)}`;
  switch (viewKind(shown.view)) {
    case 'colour': {
      const [r, g, b] = values;
      const codes = values.map((v) => Math.round(255 * Math.min(1, Math.max(0, linearToSrgb(v)))));
      const luminance = 0.2126 * r + 0.7152 * g + 0.0722 * b;
      return `${place}  sRGB ${codes.join(' ')}  Y ${luminance.toFixed(3)}`;
    }
    case 'normal':
      return `${place}  ${signed(values[0])} ${signed(values[1])} ${signed(values[2])}`;
    case 'data':
      return shown.view === 'height'
        ? `${place}  height ${(values[0] * depthMm).toFixed(2)} mm  (${values[0].toFixed(3)})`
        : `${place}  ${shown.view} ${values[0].toFixed(3)}`;
  }
}
