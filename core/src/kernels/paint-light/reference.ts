import { smoothStep } from '../../lattice/smooth-step.ts';

/** How light is painted, in the units of the planes it is painted by. */
export interface LightPainting {
  /** Of one unit of light, up to 2, and of ink, up to 1. */
  strength: number;
  ink: number;
  /** What ridges count for beside the relief. */
  byRidge: number;
  /** What brings the thin and wide parts of the relief to their usual size. */
  ofThin: number;
  ofWide: number;
  /** Where the light comes from, times what brings slopes to their usual size. */
  lightX: number;
  lightY: number;
  /** Colours are spread from here, by this. */
  middleA: number;
  middleB: number;
  gain: number;
}

/** Lightness of ink (OKLab), and how much of the colour under it is left. */
const INK = 0.14;
const UNDER_INK = 0.25;
/** How far hollows are cooled at most: of a grey, and of what is yellow in a colour (OKLab b). */
const COOLEST = 0.004;
const COOLED = 0.6;
const squashed = (value: number) => value / Math.sqrt(1 + value * value);

/**
 * Paints light on colours in OKLab: edges that stand out and face the light lighter and warmer, hollows darker, cooler and richer,
 * the light caught on the strokes' ridges; and ink in the deepest hollows. Planes are L, a, b, ridges, and the thin parts, wide
 * parts and slopes (x, y) of the relief. Into planes of L, a, b as long; gives the sum of the changes of lightness by light.
 */
export function paintLight(
  [ownL, ownA, ownB, ridges, thin, wide, gx, gy]: readonly Float32Array[],
  by: LightPainting,
  [L, a, b]: readonly Float32Array[],
): number {
  const k = by.strength;
  let changed = 0;
  for (let i = 0; i < ownL.length; i++) {
    const facing = -(gx[i] * by.lightX + gy[i] * by.lightY);
    const t = thin[i] * by.ofThin;
    const rim = smoothStep(0.35, 1.3, t) * (0.55 + 0.45 * squashed(1.5 * facing));
    const hollow = smoothStep(0.3, 1.4, -t);
    const shade = smoothStep(0.1, 1.6, -wide[i] * by.ofWide);
    const caught = Math.min(1.3, Math.max(0.35, 0.9 + 1.6 * by.byRidge * ridges[i]));
    const own = ownL[i];
    const up = 0.12 * k * rim * caught * ((1.15 - own) / 0.6);
    const down = (0.13 * hollow + 0.075 * shade) * k * ((0.25 + own) / 0.85);
    const change = up - down + 0.035 * k * squashed(facing);
    changed += Math.abs(change);
    const tint = Math.max(-0.14, Math.min(0.14, change));
    const drawn = by.ink * smoothStep(0.35, 1, hollow);
    const left = (change < 0 ? 1 - 0.9 * tint : 1) * (1 - 0.6 * drawn);
    const lit = own + change;
    L[i] = lit + (INK + UNDER_INK * own - lit) * drawn;
    a[i] = (by.middleA + (ownA[i] - by.middleA) * by.gain + 0.03 * tint) * left;
    const spreadB = by.middleB + (ownB[i] - by.middleB) * by.gain;
    // What is nearly grey must not turn blue.
    const cooled = Math.max(0.13 * tint, -COOLEST - COOLED * Math.max(0, spreadB));
    b[i] = (spreadB + (tint > 0 ? 0.16 * tint : cooled)) * left;
  }
  return changed;
}

export const reference = { paintLight };
