import { luminanceOf } from '../colour/luminance-of.ts';

/**
 * Inside stand diffuse colour, F0 colour and roughness. These bring them to base colour and metallic and back
 * (as glTF 2.0 and its extension for specular colour mix them). Everything linear, 0..1.
 */

/** Gloss of perceptual roughness, both 0..1. */
export const glossOf = (roughness: number): number => 1 - roughness;

/** Diffuse colour of a base colour: a metal has none. */
export const diffuseOf = (base: number, metallic: number): number => base * (1 - metallic);

/** F0 of a base colour: a metal mirrors in it, all else by its own F0. */
export const f0Of = (base: number, metallic: number, dielectric: number): number =>
  dielectric + metallic * (base - dielectric);

/** F0 of a usual dielectric, which base colour and metallic take for granted. */
export const USUAL_F0 = 0.04;

/**
 * How metallic a surface of this diffuse and F0 luminance is, by the one root of
 * s·m² + (d + f − 2s)·m + s − f = 0 within 0..1, which follows from d = b(1 − m) and f = s(1 − m) + bm with s the F0
 * of what is not metal.
 */
export function metallicOf(diffuse: number, f0: number, dielectric = USUAL_F0): number {
  if (f0 <= dielectric) return 0;
  const b = diffuse + f0 - 2 * dielectric;
  const c = dielectric - f0;
  // In this form nothing is lost where the square term is small.
  const root = (2 * -c) / (b + Math.sqrt(Math.max(0, b * b - 4 * dielectric * c)));
  return Math.min(1, Math.max(0, root));
}

/** Base colour of a channel from what is reflected in all: exact where the pair can be identified by base and metallic. */
export const baseOf = (diffuse: number, f0: number, metallic: number, dielectric = USUAL_F0): number =>
  Math.min(1, Math.max(0, diffuse + f0 - dielectric * (1 - metallic)));

/** Luminance of three planes at a pixel. */
const yAt = ([r, g, b]: readonly Float32Array[], i: number): number => luminanceOf(r[i], g[i], b[i]);

/** Base colour and metallic of planes of diffuse and F0 colour. */
export function toMetallic(
  diffuse: readonly Float32Array[],
  f0: readonly Float32Array[],
): { base: Float32Array[]; metallic: Float32Array } {
  const count = diffuse[0].length;
  const metallic = new Float32Array(count);
  const base = diffuse.map(() => new Float32Array(count));
  for (let i = 0; i < count; i++) {
    const m = metallicOf(yAt(diffuse, i), yAt(f0, i));
    metallic[i] = m;
    // What is hardly metal keeps its colour: its F0 is exported as a map of its own.
    for (let c = 0; c < 3; c++) base[c][i] = m === 0 ? diffuse[c][i] : baseOf(diffuse[c][i], f0[c][i], m);
  }
  return { base, metallic };
}

/** Share of pixels, 0..1, that reflect more light than falls on them in some channel: diffuse and F0 come to more than 1. */
export function excessShare(diffuse: readonly Float32Array[], f0: readonly Float32Array[]): number {
  const SLACK = 1 / 255;
  let count = 0;
  for (let i = 0; i < diffuse[0].length; i++) {
    if (diffuse.some((plane, c) => plane[i] + f0[c][i] > 1 + SLACK)) count++;
  }
  return count / diffuse[0].length;
}
