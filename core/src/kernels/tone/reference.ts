import { luminanceMap, type Tone } from '../../colour/luminance-map.ts';
import { LUMINANCE } from '../../colour/luminance-of.ts';
import { linearToOklab, oklabToLinear } from '../../colour/oklab.ts';
import { isPlain, type Recolour, recolouring } from '../../colour/recolouring.ts';
import type { Raster } from '../../raster/raster.ts';

/** Halvings by which the strongest colour in gamut is found. */
const HALVINGS = 12;

const clamp = (value: number) => Math.min(1, Math.max(0, value));
const fits = (c: readonly number[]) =>
  c[0] >= 0 && c[1] >= 0 && c[2] >= 0 && c[0] <= 1 && c[1] <= 1 && c[2] <= 1;

/**
 * The strongest colour of one hue (in OKLab) and luminance Y that lies within 0..1, at most `keep` of the strength of
 * the one given. What is scaled as a whole keeps its hue, so Y is brought back by one factor.
 */
function inGamut(r: number, g: number, b: number, y: number, keep: number): [number, number, number] {
  const grey = clamp(y);
  if (keep === 0 || grey <= 0 || grey >= 1) return [grey, grey, grey];
  const [L, a, bb] = linearToOklab(r, g, b);
  const [wr, wg, wb] = LUMINANCE;
  /** The colour at a strength of it, brought to the wanted luminance. */
  const at = (strength: number): [number, number, number] => {
    const rgb = oklabToLinear(L, strength * a, strength * bb);
    const scale = grey / Math.max(1e-9, wr * rgb[0] + wg * rgb[1] + wb * rgb[2]);
    rgb[0] *= scale;
    rgb[1] *= scale;
    rgb[2] *= scale;
    return rgb;
  };
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

/** Near black the ratio of luminances would blow up the colour of noise: beyond this many times the gain it is given up. */
export const MOST_LIFT = 4;

/**
 * Pixels `from` … `to` − 1 of linear RGB through a tone and a change of colour (see `applyTone`), written to `out`; laid over
 * what is there as far as `cover` says. With `only`, those pixels alone whose bit is set in it, four to a byte from `from` on.
 */
export function toneBlock(
  picture: Raster,
  out: Raster,
  tone: Tone,
  colour: Recolour,
  from: number,
  to: number,
  cover: Float32Array | null,
  only?: Uint8Array,
): void {
  const [wr, wg, wb] = LUMINANCE;
  const aimOf = luminanceMap(tone);
  const recolour = isPlain(colour) ? null : recolouring(colour);
  const most = tone.gain * MOST_LIFT;
  const [r0, g0, b0] = picture.planes;
  const [r1, g1, b1] = out.planes;
  for (let i = from; i < to; i++) {
    if (only && !((only[(i - from) >> 2] >> ((i - from) & 3)) & 1)) continue;
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

export const reference = { toneBlock };
