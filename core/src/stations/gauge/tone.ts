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
 * Linear RGB through a tone and a change of colour in OKLab (Ottosson 2020) with luminance Y held. A colour pushed past
 * 0..1 is drawn towards grey of its own Y, its hue held.
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

/** Halvings by which the strongest colour in gamut is found. */
const HALVINGS = 12;

/**
 * The strongest colour of one hue (in OKLab) and luminance Y that lies within 0..1, at most `keep` of the strength of
 * the one given. What is scaled as a whole keeps its hue, so Y is brought back by one factor.
 */
function inGamut(r: number, g: number, b: number, y: number, keep: number): [number, number, number] {
  const clamp = (value: number) => Math.min(1, Math.max(0, value));
  const grey = clamp(y);
  if (keep === 0 || grey <= 0 || grey >= 1) return [grey, grey, grey];
  const [L, a, bb] = linearToOklab(r, g, b);
  const [wr, wg, wb] = LUMINANCE;
  const at = (strength: number): [number, number, number] => {
    const rgb = oklabToLinear(L, strength * a, strength * bb);
    const scale = grey / Math.max(1e-9, wr * rgb[0] + wg * rgb[1] + wb * rgb[2]);
    return [rgb[0] * scale, rgb[1] * scale, rgb[2] * scale];
  };
  const fits = (rgb: readonly number[]) => Math.min(...rgb) >= 0 && Math.max(...rgb) <= 1;
  let best = at(keep);
  if (!fits(best)) {
    let low = 0;
    let high = keep;
    best = [grey, grey, grey];
    for (let k = 0; k < HALVINGS; k++) {
      const middle = (low + high) / 2;
      const tried = at(middle);
      if (fits(tried)) {
        low = middle;
        best = tried;
      } else high = middle;
    }
  }
  return [clamp(best[0]), clamp(best[1]), clamp(best[2])];
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
    let r = r0[i];
    let g = g0[i];
    let b = b0[i];
    if (recolour) {
      const [L, a, bb] = linearToOklab(r, g, b);
      [r, g, b] = oklabToLinear(L, ...recolour(L, a, bb));
    }
    const now = recolour ? wr * r + wg * g + wb * b : y;
    const ratio = now > 1e-9 ? aim / now : 0;
    // Near black the ratio would blow up the colour of noise: beyond a limit it is given up by as much.
    const keep = ratio > most ? most / ratio : 1;
    r *= ratio;
    g *= ratio;
    b *= ratio;
    // Almost every pixel is in gamut as it is.
    if (ratio === 0 || keep < 1 || r < 0 || g < 0 || b < 0 || r > 1 || g > 1 || b > 1) {
      [r, g, b] = inGamut(r, g, b, aim, ratio === 0 ? 0 : keep);
    }
    r1[i] += share * (r - r1[i]);
    g1[i] += share * (g - g1[i]);
    b1[i] += share * (b - b1[i]);
  }
}
