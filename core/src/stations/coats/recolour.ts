import { hexOfLinear, linearOfHex } from '../../colour/hex.ts';
import { linearToOklab, oklabToLinear } from '../../colour/oklab.ts';
import type { Coat, CoatOutput } from './settings.ts';

/** Halvings by which the strongest colour in gamut is found. */
const HALVINGS = 20;
/** How far beyond 0..1 a channel may be by rounding. */
const SLACK = 1e-6;

const fits = (rgb: readonly number[]) => rgb.every((value) => value >= -SLACK && value <= 1 + SLACK);

/**
 * A colour with the hue and chroma of another and its own lightness, in OKLab (Ottosson 2020); where no such colour can be shown,
 * as much of the chroma as can be. Both and the result are #rrggbb.
 */
export function recolouredHex(hex: string, like: string): string {
  const [L] = linearToOklab(...linearOfHex(hex));
  const [, a, b] = linearToOklab(...linearOfHex(like));
  const at = (share: number) => oklabToLinear(L, share * a, share * b);
  if (fits(at(1))) return hexOfLinear(at(1));
  let [low, high] = [0, 1];
  for (let k = 0; k < HALVINGS; k++) {
    const middle = (low + high) / 2;
    if (fits(at(middle))) low = middle;
    else high = middle;
  }
  return hexOfLinear(at(low));
}

/** An output with each of its own colours put through a change. Those of pictures, tiles and chart lines are not its own. */
function changed(output: CoatOutput, change: (hex: string) => string): CoatOutput {
  if (output.channel !== 'colour' && output.channel !== 'emission') return output;
  if (output.by === 'constant') return { ...output, colour: change(output.colour) };
  if (output.by !== 'ramp') return output;
  return { ...output, stops: output.stops.map((stop) => ({ ...stop, colour: change(stop.colour) })) };
}

/** Colours of its own that a coat puts into colour and emission, as #rrggbb. */
export function coloursOfCoat({ outputs }: Pick<Coat, 'outputs'>): string[] {
  const found: string[] = [];
  for (const output of outputs) {
    changed(output, (hex) => {
      found.push(hex);
      return hex;
    });
  }
  return found;
}

/** A coat whose own colours all have the hue and chroma of another, with the lightness that each has. */
export const recoloured = (coat: Coat, like: string): Coat => ({
  ...coat,
  outputs: coat.outputs.map((output) => changed(output, (hex) => recolouredHex(hex, like))),
});
