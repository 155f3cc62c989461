import { srgbCode } from '@zesty-tile/core';
import type { Language } from './settings.ts';

export const LANGUAGE_WORDS: Record<Language, string> = {
  y: 'Y, 0 to 1',
  srgb: 'sRGB, 0 to 255',
  percent: 'Percent',
};

/** A reflectance 0…1 in the chosen language, with its sign or unit. */
export function reflectanceWords(y: number, language: Language): string {
  switch (language) {
    case 'y':
      return `Y ${y.toFixed(3)}`;
    case 'srgb':
      return `sRGB ${srgbCode(y)}`;
    case 'percent':
      return `${(100 * y).toFixed(1)} %`;
  }
}
