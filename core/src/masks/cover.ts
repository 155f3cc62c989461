import { linearOfHex } from '../colour/hex.ts';
import { linearToOklab } from '../colour/oklab.ts';
import { KERNELS } from '../kernels/kernels.ts';
import { luminance } from '../planes/luminance.ts';
import { madeInParts } from '../planes/made-in-parts.ts';
import { mapping } from '../planes/mapped.ts';
import type { Edges } from '../raster/edges.ts';
import type { Raster } from '../raster/raster.ts';
import type { Sides } from '../raster/sides.ts';
import { wrapped } from '../raster/wrapped.ts';
import { coverOf } from '../strokes/cover.ts';
import type { WorkContext } from '../team/context.ts';
import { inParts, runSteps, type Steps } from '../work/steps.ts';
import { type Mask, type MaskMap, type MaskPart, type MaskStroke, mirrorImages } from './mask.ts';

/** What masks are selected from: the tile as it left Join, and its relief where a mask asks for it. */
export interface MaskInput {
  style: {
    picture: Raster;
    alpha: Float32Array | null;
    given: Partial<Record<'roughness' | 'gloss' | 'metallic', Raster>>;
  };
  relief?: {
    height: Float32Array;
    normal: Raster;
    cavity: Float32Array;
    occlusion: Float32Array | null;
    joints: Float32Array | null;
  };
  /** Joints, where Relief itself asks, which has no other map yet. */
  joints?: Float32Array | null;
}

const smooth = (t: number): number => {
  const s = Math.min(1, Math.max(0, t));
  return s * s * (3 - 2 * s);
};

/** Nearness of each pixel's colour in OKLab: half at the reach, fading over `softness` of it to both sides. */
export function nearColour(
  lab: readonly Float32Array[],
  { colour, reach, softness }: { colour: string; reach: number; softness: number },
): Float32Array {
  const [L, a, b] = linearToOklab(...linearOfHex(colour));
  const fade = Math.max(1e-4, reach * softness);
  const out = new Float32Array(lab[0].length);
  const [pl, pa, pb] = lab;
  for (let i = 0; i < out.length; i++) {
    const away = Math.sqrt((pl[i] - L) ** 2 + (pa[i] - a) ** 2 + (pb[i] - b) ** 2);
    out[i] = smooth((reach - away) / (2 * fade) + 0.5);
  }
  return out;
}

/** What lies between two values, soft over a share of what is between them; nothing where they are the wrong way round. */
export function inRange(
  plane: Float32Array,
  { from, to, softness }: { from: number; to: number; softness: number },
): Float32Array {
  const out = new Float32Array(plane.length);
  if (to < from) return out;
  const soft = Math.max(1e-4, softness * (to - from));
  // At the ends of the scale there is nothing beyond to fade to.
  const low = from <= 0 ? Number.NEGATIVE_INFINITY : from;
  const high = to >= 1 ? Number.POSITIVE_INFINITY : to;
  for (let i = 0; i < out.length; i++) {
    out[i] = smooth(Math.min(plane[i] - low, high - plane[i]) / soft + 0.5);
  }
  return out;
}

/**
 * Draws strokes in their order into what was painted before them, 0..1, and gives that back; one that erases takes earlier ones
 * away. What a stroke mirrors is the same to the bit.
 */
export function* painting(
  strokes: readonly MaskStroke[],
  out: Float32Array,
  width: number,
  height: number,
  edges: Edges,
): Steps<Float32Array> {
  for (const stroke of strokes) {
    const cover = coverOf(stroke, width, height, edges);
    for (const [isAcross, isDown] of mirrorImages(stroke.mirror)) {
      for (let y = 0, k = 0; y < cover.height; y++) {
        const down = wrapped(cover.y + y, height);
        const row = (isDown ? height - 1 - down : down) * width;
        for (let x = 0; x < cover.width; x++, k++) {
          const across = wrapped(cover.x + x, width);
          const i = row + (isAcross ? width - 1 - across : across);
          const value = cover.values[k];
          out[i] = stroke.erase ? out[i] * (1 - value) : Math.max(out[i], value);
        }
      }
    }
    yield;
  }
  return out;
}

const lean = (z: number) => (2 / Math.PI) * Math.acos(Math.min(1, z));

/** The values 0..1 of a map that a zone is selected by; null where the tile has none. */
function* planeOf({ style, relief, joints }: MaskInput, map: MaskMap): Steps<Float32Array | null> {
  switch (map) {
    case 'luminance':
      return luminance(style.picture);
    case 'opacity':
      return style.alpha;
    case 'metallic':
      return style.given.metallic?.planes[0] ?? null;
    case 'roughness':
      if (style.given.roughness || !style.given.gloss) return style.given.roughness?.planes[0] ?? null;
      return yield* mapping(style.given.gloss.planes[0], (value) => 1 - value);
    case 'joints':
      return relief?.joints ?? joints ?? null;
    case 'slope':
      return relief ? yield* mapping(relief.normal.planes[2], lean) : null;
    default:
      return relief?.[map] ?? null;
  }
}

/** Lays a part over what was picked before it, in place. */
function lay(cover: Float32Array, own: Float32Array, how: MaskPart['how']): void {
  for (let i = 0; i < own.length; i++) {
    if (how === 'or') cover[i] = Math.max(cover[i], own[i]);
    else cover[i] *= how === 'and' ? own[i] : 1 - own[i];
  }
}

/**
 * How much of each pixel belongs to a zone, 0..1: its parts one after the other, `and` by the product, `or` by
 * the larger, `without` by the product with what is not picked. A map that the tile does not have selects nothing.
 */
export async function maskCover(
  mask: Mask,
  input: MaskInput,
  frame: Sides & { edges: Edges },
  context: WorkContext,
): Promise<Float32Array> {
  const { width, height, edges } = frame;
  const { checkpoint } = context;
  const count = width * height;
  let cover: Float32Array | null = null;
  for (const part of mask.parts) {
    let own: Float32Array;
    if (part.by === 'colour') {
      const lab = await context.part('oklab', null, () => KERNELS.oklabPlanes(input.style.picture.planes));
      const some = (from: number, to: number) => lab.map((plane) => plane.subarray(from, to));
      const near = (from: number, to: number) => nearColour(some(from, to), part);
      own = await runSteps(madeInParts(count, near), checkpoint);
    } else if (part.by === 'range') {
      const plane = await runSteps(planeOf(input, part.map), checkpoint);
      const within = (from: number, to: number) => inRange(plane!.subarray(from, to), part);
      own = plane ? await runSteps(madeInParts(count, within), checkpoint) : new Float32Array(count);
    } else {
      const empty = new Float32Array(count);
      own = await runSteps(painting(part.strokes, empty, width, height, edges), checkpoint);
    }
    if (!cover) {
      cover = own;
      continue;
    }
    const under = cover;
    const laid = (from: number, to: number) =>
      lay(under.subarray(from, to), own.subarray(from, to), part.how);
    await runSteps(inParts(count, laid), checkpoint);
  }
  return cover ?? new Float32Array(count);
}

/** Share of the tile that a cover comes to, 0..1. */
export function coverShare(cover: Float32Array): number {
  let sum = 0;
  for (let i = 0; i < cover.length; i++) sum += cover[i];
  return sum / cover.length;
}
