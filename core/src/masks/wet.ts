/**
 * Share of the light within a film of water that its surface reflects down, for light that comes from below
 * evenly: 1 − (1 − r)/n² with n = 1.33 and r = 0.066, what the film's surface reflects of even light from above
 * (Lekner & Dorf 1988).
 */
const THROWN_BACK = 1 - (1 - 0.066) / 1.33 ** 2;

/** F0 of water, ((n − 1)/(n + 1))². */
export const WATER_F0 = ((1.33 - 1) / (1.33 + 1)) ** 2;

/** A soaked surface keeps this share of its roughness: dry stone of 0.9 comes to 0.27, as the chart's wet lines have it. */
const ROUGHNESS_LEFT = 0.3;

/**
 * Diffuse reflectance 0..1 of a porous surface under a film of water: light reflected down meets the surface
 * again and again, ρ(1 − p)/(1 − pρ) (Lekner & Dorf 1988, after Ångström 1925). `wetness` is how much of the surface is
 * wet, 0..1. The film's own reflection is left to F0.
 */
export const wetReflectance = (dry: number, wetness: number): number =>
  dry + wetness * ((dry * (1 - THROWN_BACK)) / (1 - THROWN_BACK * dry) - dry);

/** Perceptual roughness when water fills the pores, by the share that is wet. A rule, compared with the chart's wet lines. */
export const wetRoughness = (dry: number, wetness: number): number =>
  dry * (1 - (1 - ROUGHNESS_LEFT) * wetness);

/** F0 under a film of water, by the share that is wet: light meets the water first. */
export const wetF0 = (dry: number, wetness: number): number => dry + wetness * (WATER_F0 - dry);
