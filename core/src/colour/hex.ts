import { srgbCode, srgbToLinear } from './srgb.ts';

/** Linear RGB of #rrggbb. */
export const linearOfHex = (hex: string): [number, number, number] =>
  [1, 3, 5].map((at) => srgbToLinear(Number.parseInt(hex.slice(at, at + 2), 16) / 255)) as [
    number,
    number,
    number,
  ];

/** #rrggbb of linear RGB; what lies outside 0..1 is brought to its end. */
export const hexOfLinear = (rgb: readonly number[]): string =>
  `#${rgb.map((value) => srgbCode(value).toString(16).padStart(2, '0')).join('')}`;
