import { SIZES } from '@zesty-tile/core';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import { THEME_NAMES, type ThemeName } from '../theme.ts';

/** How reflectance is said: luminance Y 0…1, sRGB code 0…255, or percent. */
export const LANGUAGES = ['y', 'srgb', 'percent'] as const;
export type Language = (typeof LANGUAGES)[number];

export const STAGE = { least: 64, most: 176, usual: 122 };
export const CACHE_MB = [300, 600, 1200, 2400] as const;

/** What a person has chosen about the program itself; kept in this browser. */
export interface Settings {
  theme: ThemeName;
  /** sRGB code of the grey around the tile. */
  stage: number;
  language: Language;
  /** Memory for results in this browser, in MB. */
  cacheMb: number;
  /** A line under the tile says what the engine did. */
  engineLine: boolean;
  /** Of new tiles. */
  edgeMetres: number;
  size: number;
  firstNoteSeen: boolean;
}

export const USUAL: Settings = {
  theme: 'light',
  stage: STAGE.usual,
  language: 'y',
  cacheMb: 1200,
  engineLine: false,
  edgeMetres: 1,
  size: 1024,
  firstNoteSeen: false,
};

/** What was kept, as far as it still makes sense. */
function sound(kept: Partial<Settings>): Partial<Settings> {
  const inside = (v: unknown, low: number, high: number) => typeof v === 'number' && v >= low && v <= high;
  const out: Partial<Settings> = {};
  if (THEME_NAMES.includes(kept.theme as ThemeName)) out.theme = kept.theme;
  if (LANGUAGES.includes(kept.language as Language)) out.language = kept.language;
  if (inside(kept.stage, STAGE.least, STAGE.most)) out.stage = kept.stage;
  if ((CACHE_MB as readonly unknown[]).includes(kept.cacheMb)) out.cacheMb = kept.cacheMb;
  if (kept.engineLine === true) out.engineLine = true;
  if (inside(kept.edgeMetres, 0.01, 100)) out.edgeMetres = kept.edgeMetres;
  if ((SIZES as readonly unknown[]).includes(kept.size)) out.size = kept.size;
  if (kept.firstNoteSeen === true) out.firstNoteSeen = true;
  return out;
}

export const useSettings = create<Settings>()(
  persist(() => USUAL, {
    name: 'zesty settings',
    merge: (kept, now) => ({ ...now, ...sound((kept ?? {}) as Partial<Settings>) }),
  }),
);

export function setSettings(values: Partial<Settings>): void {
  useSettings.setState(values);
}
