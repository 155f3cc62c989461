import { linearOfHex } from './hex.ts';
import { linearToOklab } from './oklab.ts';

/** What is done to colour while luminance is held, in OKLab's a and b. */
export interface Recolour {
  /** Strength of colour: 1 leaves it, 0 is grey. */
  strength: number;
  hueDegrees: number;
  /** Towards which colour, #rrggbb, and how much of the way, 0..1. */
  towards: string;
  pull: number;
}

export const isPlain = ({ strength, hueDegrees, pull }: Recolour): boolean =>
  strength === 1 && hueDegrees === 0 && pull === 0;

/**
 * A change of a and b for a lightness L: turned about grey, scaled, and drawn towards the aim's own a and b, which
 * shrink with L as the colours of a surface do in less light.
 */
export function recolouring({
  strength,
  hueDegrees,
  towards,
  pull,
}: Recolour): (L: number, a: number, b: number) => [number, number] {
  const turn = (hueDegrees * Math.PI) / 180;
  const [c, s] = [strength * Math.cos(turn), strength * Math.sin(turn)];
  const [aimL, aimA, aimB] = linearToOklab(...linearOfHex(towards));
  const per = pull / Math.max(0.05, aimL);
  return (L, a, b) => [
    (1 - pull) * (a * c - b * s) + per * L * aimA,
    (1 - pull) * (a * s + b * c) + per * L * aimB,
  ];
}
