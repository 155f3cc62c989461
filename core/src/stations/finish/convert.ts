/** Inside stand diffuse colour, F0 colour and roughness; these give the two usual pairs from them. */

/** Gloss of perceptual roughness, both 0..1. */
export const glossOf = (roughness: number): number => 1 - roughness;

/**
 * Diffuse colour of a base colour: a metal has none (metallic–roughness as in glTF 2.0, 2017).
 * Linear 0..1.
 */
export const diffuseOf = (albedo: number, metallic: number): number => albedo * (1 - metallic);
