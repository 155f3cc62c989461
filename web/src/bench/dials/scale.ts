import type { NumberSetting } from '@zesty-tile/core';

/** How a dial's track relates to its value: even, by ratio, or finer towards zero. */
type Kind = 'even' | 'ratio' | 'fine';

function kindOf({ min, max, step }: NumberSetting): Kind {
  if (min > 0 && max / min >= 100) return 'ratio';
  if (min === 0 && max / step > 1000) return 'fine';
  return 'even';
}

/** Place on the track 0..1 of a value. */
export function placeOf(setting: NumberSetting, value: number): number {
  const { min, max } = setting;
  switch (kindOf(setting)) {
    case 'ratio':
      return Math.log(value / min) / Math.log(max / min);
    case 'fine':
      return Math.cbrt(value / max);
    case 'even':
      return (value - min) / (max - min);
  }
}

/** The value nearest to a place 0..1, on the setting's own step. */
export function valueAt(setting: NumberSetting, place: number): number {
  const { min, max } = setting;
  const t = Math.min(1, Math.max(0, place));
  switch (kindOf(setting)) {
    case 'ratio':
      return onStep(setting, min * (max / min) ** t);
    case 'fine':
      return onStep(setting, max * t ** 3);
    case 'even':
      return onStep(setting, min + (max - min) * t);
  }
}

/** Decimals that a step needs. */
export const decimalsOf = (step: number): number => Math.max(0, Math.ceil(-Math.log10(step) - 1e-9));

/** A value brought inside the range and onto the step. */
export function onStep({ min, max, step }: NumberSetting, value: number): number {
  const stepped = Math.round(value / step) * step;
  return Number(Math.min(max, Math.max(min, stepped)).toFixed(decimalsOf(step)));
}
