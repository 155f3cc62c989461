import { LUMINANCE } from '../../colour/luminance.ts';
import { linearToOklab, oklabToLinear } from '../../colour/oklab.ts';
import { Raster } from '../../raster/raster.ts';

/** How luminance is mapped: gain, contrast about a pivot, soft hold at the limits. */
export interface Tone {
  gain: number;
  contrast: number;
  /** Y (after the gain) that contrast leaves alone. */
  pivot: number;
  /** Limits of Y to hold softly, or null. */
  hold: [number, number] | null;
}

/** Held softly: unchanged well inside, bending towards the limits without a corner, never past them. */
export function softHold(y: number, [low, high]: [number, number]): number {
  const shoulder = low + (high - low) * 0.82;
  const toe = Math.min(2 * low, low + (high - low) * 0.1);
  if (y > shoulder) {
    const room = high - shoulder;
    return shoulder + room * (1 - Math.exp(-(y - shoulder) / room));
  }
  if (y < toe) {
    const room = toe - low;
    return toe - room * (1 - Math.exp(-(toe - y) / room));
  }
  return y;
}

/** The Y that `softHold` brings to `y`; `y` must lie strictly inside the limits. */
export function undoHold(y: number, [low, high]: [number, number]): number {
  const shoulder = low + (high - low) * 0.82;
  const toe = Math.min(2 * low, low + (high - low) * 0.1);
  if (y > shoulder) {
    const room = high - shoulder;
    return shoulder - room * Math.log(1 - (y - shoulder) / room);
  }
  if (y < toe) {
    const room = toe - low;
    return toe + room * Math.log(1 - (toe - y) / room);
  }
  return y;
}

/** Luminance through a tone. */
export function mapLuminance(y: number, tone: Tone): number {
  const lit = y * tone.gain;
  const turned = tone.contrast === 1 || lit <= 0 ? lit : tone.pivot * (lit / tone.pivot) ** tone.contrast;
  return tone.hold ? softHold(turned, tone.hold) : turned;
}

const MOST_LIFT = 4;

/**
 * Linear RGB through a tone and a colour factor (1 leaves it, 0 is grey): chroma is scaled in OKLab
 * (Ottosson 2020) with luminance Y held, and a colour pushed past 0..1 is drawn towards grey of its own Y.
 * `breathe` is awaited between blocks of rows.
 */
export async function applyTone(
  picture: Raster,
  tone: Tone,
  colour: number,
  breathe: (done: number) => Promise<void>,
): Promise<Raster> {
  const { width, height } = picture;
  const out = Raster.filled(width, height, 3);
  const [wr, wg, wb] = LUMINANCE;
  const [r0, g0, b0] = picture.planes;
  const [r1, g1, b1] = out.planes;
  for (let i = 0; i < r0.length; i++) {
    if ((i & 0x3fff) === 0) await breathe(i / r0.length);
    const y = wr * r0[i] + wg * g0[i] + wb * b0[i];
    const aim = mapLuminance(y, tone);
    // Near black the ratio would blow up noise: beyond a limit the rest is added as grey.
    const ratio = y > 0 ? Math.min(aim / y, tone.gain * MOST_LIFT) : 0;
    const rest = aim - y * ratio;
    let r = r0[i] * ratio + rest;
    let g = g0[i] * ratio + rest;
    let b = b0[i] * ratio + rest;
    if (colour !== 1) {
      const [L, a, bb] = linearToOklab(r, g, b);
      [r, g, b] = oklabToLinear(L, a * colour, bb * colour);
      const now = wr * r + wg * g + wb * b;
      if (now > 1e-9) {
        const back = aim / now;
        r *= back;
        g *= back;
        b *= back;
      }
    }
    const grey = Math.min(1, Math.max(0, aim));
    let keep = 1;
    for (const v of [r, g, b]) {
      if (v > 1 && v > grey) keep = Math.min(keep, (1 - grey) / (v - grey));
      else if (v < 0 && v < grey) keep = Math.min(keep, grey / (grey - v));
    }
    r1[i] = Math.min(1, Math.max(0, grey + (r - grey) * keep));
    g1[i] = Math.min(1, Math.max(0, grey + (g - grey) * keep));
    b1[i] = Math.min(1, Math.max(0, grey + (b - grey) * keep));
  }
  return out;
}
