import { add } from './add.ts';
import { burn } from './burn.ts';
import { color } from './color.ts';
import { darken } from './darken.ts';
import { difference } from './difference.ts';
import { divide } from './divide.ts';
import { dodge } from './dodge.ts';
import { exclusion } from './exclusion.ts';
import { hardLight } from './hard-light.ts';
import { hue } from './hue.ts';
import { lighten } from './lighten.ts';
import { luminosity } from './luminosity.ts';
import type { BlendMode } from './mode.ts';
import { multiply } from './multiply.ts';
import { normal } from './normal.ts';
import { overlay } from './overlay.ts';
import { saturation } from './saturation.ts';
import { screen } from './screen.ts';
import { softLight } from './soft-light.ts';
import { subtract } from './subtract.ts';

/** Every blend mode by the name it has in recipes. */
export const BLEND_MODES = {
  normal,
  multiply,
  screen,
  overlay,
  darken,
  lighten,
  dodge,
  burn,
  'hard-light': hardLight,
  'soft-light': softLight,
  difference,
  exclusion,
  hue,
  saturation,
  color,
  luminosity,
  add,
  subtract,
  divide,
} as const satisfies Record<string, BlendMode>;

export type BlendName = keyof typeof BLEND_MODES;
export const BLEND_NAMES = Object.keys(BLEND_MODES) as BlendName[];
