const LOG_FLOOR = 0.01;

/** Centre and spread of log luminance, settled at the working size. */
export interface ToneScale {
  centre: number;
  spread: number;
}

/** How tone and cavity make roughness. */
export interface RoughnessMix {
  /** −1..1; positive: bright is rougher. */
  tone: number;
  /** −1..1; positive: hollows are rougher. */
  cavity: number;
  /** Tone curve, in powers of two: below 0 most of the tile is rough, above 0 most is smooth. */
  curve: number;
  band: [number, number];
}

export const logTone = (y: number) => Math.log(Math.max(0, y) + LOG_FLOOR);

/**
 * Roughness from luminance (of Join's picture) and cavity (0.5 flat): both are added about the middle,
 * clamped, bent by the curve and laid into the band. Perceptual roughness 0..1, α = roughness² for GGX.
 */
export function roughnessMap(
  luminance: Float32Array,
  cavity: Float32Array,
  scale: ToneScale,
  mix: RoughnessMix,
): Float32Array {
  const [low, high] = mix.band;
  const power = 2 ** mix.curve;
  const toneGain = scale.spread > 0 ? mix.tone / (4 * scale.spread) : 0;
  const out = new Float32Array(luminance.length);
  for (let i = 0; i < out.length; i++) {
    const t = 0.5 + toneGain * (logTone(luminance[i]) - scale.centre) + mix.cavity * (0.5 - cavity[i]);
    const clamped = Math.min(1, Math.max(0, t));
    out[i] = low + (high - low) * (power === 1 ? clamped : clamped ** power);
  }
  return out;
}
