import { srgbToLinear } from './srgb.ts';

/** Linear RGB of #rrggbb. */
export const linearOfHex = (hex: string): [number, number, number] =>
  [1, 3, 5].map((at) => srgbToLinear(Number.parseInt(hex.slice(at, at + 2), 16) / 255)) as [
    number,
    number,
    number,
  ];
