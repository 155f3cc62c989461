import { linearOfHex, linearToOklab } from '@zesty-tile/core';
import type { PaletteColour } from './use-palettes.ts';

/** The colour of a palette that is nearest to linear RGB, and how far it is in OKLab. */
export function nearestColour(
  rgb: [number, number, number],
  colours: readonly PaletteColour[],
): { colour: PaletteColour; distance: number } | null {
  const here = linearToOklab(...rgb);
  let best: { colour: PaletteColour; distance: number } | null = null;
  for (const colour of colours) {
    const there = linearToOklab(...linearOfHex(colour.hex));
    const distance = Math.hypot(...here.map((v, k) => v - there[k]));
    if (!best || distance < best.distance) best = { colour, distance };
  }
  return best;
}
