import { mapped } from '../planes/mapped.ts';
import { Raster } from '../raster/raster.ts';
import { statistics } from '../statistics/statistics.ts';
import { diffuseOf, f0Of, toMetallic, USUAL_F0 } from './convert.ts';
import { channelAt, type Material, type SurfaceChannel } from './surface.ts';

type Reflecting = Pick<Material, 'colour' | 'metallic' | 'f0' | 'isF0Whole'>;

const pairs = new WeakMap<Raster, { f0: Raster; base: Raster; metallic: Float32Array }>();

/** Base colour and metallic where diffuse and F0 colour were supplied; made once for both. */
function pairOf(diffuse: Raster, f0: Raster) {
  const kept = pairs.get(diffuse);
  if (kept?.f0 === f0) return kept;
  const { base, metallic } = toMetallic(diffuse.planes, f0.planes);
  const made = { f0, base: new Raster(diffuse.width, diffuse.height, base), metallic };
  pairs.set(diffuse, made);
  return made;
}

/** The whole F0 where it was supplied as a map; else null. */
const wholeF0 = ({ f0, isF0Whole }: Pick<Material, 'f0' | 'isF0Whole'>): Raster | null =>
  isF0Whole && !Array.isArray(f0) ? f0 : null;

/** Base colour, as metallic and roughness go with it; linear RGB. */
export function albedoOf(material: Pick<Material, 'colour' | 'f0' | 'isF0Whole'>): Raster {
  const f0 = wholeF0(material);
  return f0 ? pairOf(material.colour, f0).base : material.colour;
}

/** Metallic 0..1. */
export function metallicChannel(material: Reflecting): SurfaceChannel {
  const f0 = wholeF0(material);
  return f0 ? pairOf(material.colour, f0).metallic : material.metallic;
}

/** Diffuse colour, linear RGB: a metal has none. */
export function diffuseColour(material: Reflecting): Raster {
  const { colour, metallic } = material;
  if (wholeF0(material) || metallic === 0) return colour;
  return colour.mapPlanes((plane) => mapped(plane, (value, i) => diffuseOf(value, channelAt(metallic, i))));
}

/**
 * F0 of what is not metal, for files whose renderer mixes it with the base colour itself: the brightest of the tile, and
 * where it differs from place to place each pixel's share of that, linear. Where F0 was supplied as the whole of it, what is
 * not metal has the usual one.
 */
export function dielectricOf({ f0, isF0Whole }: Pick<Material, 'f0' | 'isF0Whole'>): {
  brightest: [number, number, number];
  share: Raster | null;
} {
  if (isF0Whole) return { brightest: [USUAL_F0, USUAL_F0, USUAL_F0], share: null };
  if (Array.isArray(f0)) return { brightest: f0, share: null };
  const top = f0.planes.map((plane) => Math.max(1e-6, statistics(plane).max));
  return {
    brightest: [top[0], top[1], top[2]],
    share: f0.mapPlanes((plane, c) => mapped(plane, (value) => value / top[c])),
  };
}

/** F0 as a colour, of metal and everything else; linear RGB. */
export function specularColour(material: Reflecting): Raster {
  const whole = wholeF0(material);
  if (whole) return whole;
  const { colour, f0, metallic } = material;
  // Of a grey one all channels are the same plane.
  const filled = new Map<number, Float32Array>();
  const flat = (value: number, count: number) => {
    const plane = filled.get(value) ?? new Float32Array(count).fill(value);
    filled.set(value, plane);
    return plane;
  };
  return colour.mapPlanes((base, c) => {
    const own = Array.isArray(f0) ? f0[c] : f0.planes[c];
    if (metallic === 1) return base;
    if (metallic === 0) return typeof own === 'number' ? flat(own, base.length) : own;
    return mapped(base, (value, i) => f0Of(value, channelAt(metallic, i), channelAt(own, i)));
  });
}
