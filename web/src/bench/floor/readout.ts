import { albedoBand, type LineChoice, lineOf, luminanceOf, srgbCode } from '@zesty-tile/core';
import type { ShownView } from '../../engine/protocol.ts';
import { isDetail, VIEW_WORDS, viewKind } from '../../engine/views.ts';
import { nearestColour } from '../../palettes/nearest.ts';
import type { PaletteColour } from '../../palettes/use-palettes.ts';
import { reflectanceWords } from '../../settings/reflectance.ts';
import type { Language } from '../../settings/settings.ts';

/** What a reading is compared with. */
export interface ReadoutFrame {
  depthMm: number;
  /** The line of the chart, for the albedo. */
  line: LineChoice;
  language: Language;
  palette: readonly PaletteColour[];
}

const pad = (n: number) => String(n).padStart(4, ' ');
const signed = (v: number) => (v < 0 ? '−' : '+') + Math.abs(v).toFixed(3);

function againstBand(y: number, choice: LineChoice): string {
  const line = lineOf(choice);
  if (!line) return '';
  const [low, high] = albedoBand(line);
  return y < low ? 'below the band' : y > high ? 'above the band' : 'inside the band';
}

/** The values under a pixel in words: sRGB and reflectance for colour, the value with its unit for data. */
export function readoutAt(shown: ShownView, x: number, y: number, frame: ReadoutFrame): string {
  const values = shown.planes.map((plane) => plane[y * shown.width + x]);
  const place = `x ${pad(x)} y ${pad(y)}`;
  switch (viewKind(shown.view)) {
    case 'colour': {
      const [r, g, b] = values;
      const codes = values.map(srgbCode);
      const luminance = luminanceOf(r, g, b);
      const grey =
        frame.language === 'srgb'
          ? `grey ${srgbCode(luminance)}`
          : reflectanceWords(luminance, frame.language);
      const band = shown.view === 'albedo' ? againstBand(luminance, frame.line) : '';
      const near = nearestColour([r, g, b], frame.palette);
      const nearest = near ? `${near.distance.toFixed(3)} from ${near.colour.name || near.colour.hex}` : '';
      // Each line is as long as there is room for in the smallest window.
      const against = [band, nearest].filter((words) => words !== '').join('  ');
      return `${place}  sRGB ${codes.join(' ')}  ${grey}\n${against}`;
    }
    case 'light':
      return `${place}\n×${(2 ** values[0]).toFixed(2)} relative light  (${signed(values[0])} stops)`;
    case 'normal':
      return `${place}\n${signed(values[0])} ${signed(values[1])} ${signed(values[2])}`;
    case 'data':
      if (isDetail(shown.view))
        return `${place}\n${VIEW_WORDS[shown.view].toLowerCase()} ${signed(values[0] - 0.5)}`;
      return shown.view === 'height'
        ? `${place}\nheight ${(values[0] * frame.depthMm).toFixed(2)} mm  (${values[0].toFixed(3)})`
        : `${place}\n${shown.view} ${values[0].toFixed(3)}`;
  }
}
