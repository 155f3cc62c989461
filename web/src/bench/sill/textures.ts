import * as THREE from 'three';
import type { ShownMap, ShownMaps } from '../../engine/protocol.ts';
import type { Size } from '../floor/geometry.ts';
import type { SillMap } from './state.ts';

/** What the graphics card sets limits to. */
export interface Limits {
  anisotropy: number;
  /** Longest side of a texture. */
  most: number;
}

/** The same halved until no side is longer than a graphics card takes. */
function within(shown: ShownMap, most: number): ShownMap {
  let now = shown;
  while (Math.max(now.width, now.height) > most) now = halved(now);
  return now;
}

function halved({ width, height, rgba }: ShownMap): ShownMap {
  const [w, h] = [Math.max(1, width >> 1), Math.max(1, height >> 1)];
  const out = new Uint8ClampedArray(4 * w * h);
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      for (let c = 0; c < 4; c++) {
        const at = 4 * (2 * y * width + 2 * x) + c;
        out[4 * (y * w + x) + c] =
          (rgba[at] + rgba[at + 4] + rgba[at + 4 * width] + rgba[at + 4 * width + 4]) / 4;
      }
    }
  }
  return { width: w, height: h, rgba: out };
}

/** RGBA as a texture that repeats. Row 0 is the picture's top, so the shapes' v runs downwards. */
export function textureOf(shown: ShownMap, colour: boolean, { anisotropy, most }: Limits): THREE.Texture {
  const { width, height, rgba } = within(shown, most);
  const made = new THREE.DataTexture(new Uint8Array(rgba.buffer), width, height, THREE.RGBAFormat);
  made.colorSpace = colour ? THREE.SRGBColorSpace : THREE.NoColorSpace;
  made.wrapS = THREE.RepeatWrapping;
  made.wrapT = THREE.RepeatWrapping;
  made.magFilter = THREE.LinearFilter;
  made.minFilter = THREE.LinearMipmapLinearFilter;
  made.generateMipmaps = true;
  made.anisotropy = anisotropy;
  made.needsUpdate = true;
  return made;
}

/** RGBA of one value per pixel, 0…255. */
function greyOf({ width, height }: Size, valueAt: (i: number) => number): ShownMap {
  const count = width * height;
  const out = new Uint8ClampedArray(4 * count);
  for (let i = 0; i < count; i++) out.fill(valueAt(i), 4 * i, 4 * i + 3);
  for (let i = 3; i < out.length; i += 4) out[i] = 255;
  return { width, height, rgba: out };
}

/** One map as it is looked at alone; null for what is one value all over. A data map is shown by its stored values: as if it were an sRGB picture, like a viewer would. */
export function aloneOf(maps: ShownMaps, map: SillMap, limits: Limits): THREE.Texture | null {
  const { packed, height } = maps;
  const channel = (k: number) =>
    textureOf(
      greyOf(packed, (i) => packed.rgba[4 * i + k]),
      true,
      limits,
    );
  switch (map) {
    case 'albedo':
      return textureOf(maps.albedo, true, limits);
    case 'normal':
      return textureOf(maps.normal, true, limits);
    case 'height':
      return textureOf(
        greyOf(height, (i) => 255 * height.values[i]),
        true,
        limits,
      );
    case 'occlusion':
      return channel(0);
    case 'roughness':
      return channel(1);
    case 'metallic':
      return channel(2);
    case 'specular':
      return maps.specular && textureOf(maps.specular.map, true, limits);
    case 'opacity':
      return maps.opacity ? textureOf(maps.opacity, true, limits) : null;
    case 'emission':
      return maps.emission ? textureOf(maps.emission, true, limits) : null;
  }
}

/** The height as one float per pixel. */
export function heightTexture({ width, height, values }: ShownMaps['height']): THREE.DataTexture {
  const made = new THREE.DataTexture(values, width, height, THREE.RedFormat, THREE.FloatType);
  made.wrapS = THREE.RepeatWrapping;
  made.wrapT = THREE.RepeatWrapping;
  made.magFilter = THREE.LinearFilter;
  made.minFilter = THREE.LinearFilter;
  made.needsUpdate = true;
  return made;
}
