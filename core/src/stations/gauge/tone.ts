import { LUMINANCE } from '../../colour/luminance.ts';
import { linearToOklab, oklabToLinear } from '../../colour/oklab.ts';
import { Raster } from '../../raster/raster.ts';
import { isPlain, type Recolour, recolouring } from './recolour.ts';

/** How luminance is mapped: gain, contrast about a pivot, soft hold at the limits. */
export interface Tone {
  gain: number;
  contrast: number;
  /** Y (after the gain) that contrast leaves alone. */
  pivot: number;
  /** Limits of Y to hold softly, or null. */
  hold: [number, number] | null;
}

/** Where the hold begins to bend, below and above. */
const bends = ([low, high]: [number, number]): [number, number] => [
  Math.min(2 * low, low + (high - low) * 0.1),
  low + (high - low) * 0.82,
];

/** Held softly: unchanged well inside, bending towards the limits without a corner, never past them. */
export const softHold = (y: number, limits: [number, number]): number =>
  luminanceMap({ gain: 1, contrast: 1, pivot: 1, hold: limits })(y);

/** The Y that `softHold` brings to `y`; `y` must lie strictly inside the limits. */
export function undoHold(y: number, [low, high]: [number, number]): number {
  const [toe, shoulder] = bends([low, high]);
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

/** Luminance through a tone, as a function of Y alone. */
export function luminanceMap({ gain, contrast, pivot, hold }: Tone): (y: number) => number {
  const turned =
    contrast === 1
      ? (y: number) => y * gain
      : (y: number) => (y <= 0 ? y * gain : pivot * ((y * gain) / pivot) ** contrast);
  if (!hold) return turned;
  const [low, high] = hold;
  const [toe, shoulder] = bends(hold);
  // Most of a tile lies between the bends, where nothing is held.
  return (y) => {
    const v = turned(y);
    if (v > shoulder)
      return shoulder + (high - shoulder) * (1 - Math.exp(-(v - shoulder) / (high - shoulder)));
    if (v < toe) return toe - (toe - low) * (1 - Math.exp(-(toe - v) / (toe - low)));
    return v;
  };
}

const MOST_LIFT = 4;
/** Pixels between two pauses. */
const BLOCK = 0x8000;

/** Where a tone is laid over what another made: that one's result, and by how much, 0..1, each pixel is replaced. */
export interface Over {
  under: Raster;
  cover: Float32Array;
}

/**
 * Linear RGB through a tone and a change of colour in OKLab (Ottosson 2020) with luminance Y held, and a colour pushed past 0..1 is drawn towards grey of its own Y.
 * `breathe` is awaited between blocks of rows.
 */
export async function applyTone(
  picture: Raster,
  tone: Tone,
  colour: Recolour,
  breathe: (done: number) => Promise<void>,
  over?: Over,
): Promise<Raster> {
  const out = over
    ? over.under.mapPlanes((plane) => plane.slice())
    : Raster.filled(picture.width, picture.height, 3);
  const count = picture.width * picture.height;
  for (let from = 0; from < count; from += BLOCK) {
    await breathe(from / count);
    toneBlock(picture, out, tone, colour, from, Math.min(count, from + BLOCK), over?.cover ?? null);
  }
  return out;
}

function toneBlock(
  picture: Raster,
  out: Raster,
  tone: Tone,
  colour: Recolour,
  from: number,
  to: number,
  cover: Float32Array | null,
): void {
  const [wr, wg, wb] = LUMINANCE;
  const aimOf = luminanceMap(tone);
  const recolour = isPlain(colour) ? null : recolouring(colour);
  const most = tone.gain * MOST_LIFT;
  const [r0, g0, b0] = picture.planes;
  const [r1, g1, b1] = out.planes;
  for (let i = from; i < to; i++) {
    const share = cover ? cover[i] : 1;
    if (share === 0) continue;
    const y = wr * r0[i] + wg * g0[i] + wb * b0[i];
    const aim = aimOf(y);
    // Near black the ratio would blow up noise: beyond a limit the rest is added as grey.
    const ratio = y > 0 ? Math.min(aim / y, most) : 0;
    const rest = aim - y * ratio;
    let r = r0[i] * ratio + rest;
    let g = g0[i] * ratio + rest;
    let b = b0[i] * ratio + rest;
    if (recolour) {
      const [L, a, bb] = linearToOklab(r, g, b);
      [r, g, b] = oklabToLinear(L, ...recolour(L, a, bb));
      const now = wr * r + wg * g + wb * b;
      if (now > 1e-9) {
        const back = aim / now;
        r *= back;
        g *= back;
        b *= back;
      }
    }
    // Almost every pixel is in gamut as it is.
    if (r < 0 || g < 0 || b < 0 || r > 1 || g > 1 || b > 1) {
      const grey = Math.min(1, Math.max(0, aim));
      const highest = Math.max(r, g, b);
      const lowest = Math.min(r, g, b);
      let keep = 1;
      if (highest > 1 && highest > grey) keep = (1 - grey) / (highest - grey);
      if (lowest < 0 && lowest < grey) keep = Math.min(keep, grey / (grey - lowest));
      r = Math.min(1, Math.max(0, grey + (r - grey) * keep));
      g = Math.min(1, Math.max(0, grey + (g - grey) * keep));
      b = Math.min(1, Math.max(0, grey + (b - grey) * keep));
    }
    r1[i] += share * (r - r1[i]);
    g1[i] += share * (g - g1[i]);
    b1[i] += share * (b - b1[i]);
  }
}
