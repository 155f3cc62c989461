import * as THREE from 'three';
import type { ShownMap, ShownMaps } from '../../engine/protocol.ts';
import type { Size } from '../floor/geometry.ts';
import type { SillMap } from './state.ts';

/** RGBA as a texture that repeats. Row 0 is the picture's top, so the shapes' v runs downwards. */
export function textureOf(
  { width, height, rgba }: ShownMap,
  colour: boolean,
  anisotropy: number,
): THREE.Texture {
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
export function aloneOf(maps: ShownMaps, map: SillMap, anisotropy: number): THREE.Texture | null {
  const { packed, height } = maps;
  const channel = (k: number) =>
    textureOf(
      greyOf(packed, (i) => packed.rgba[4 * i + k]),
      true,
      anisotropy,
    );
  switch (map) {
    case 'albedo':
      return textureOf(maps.albedo, true, anisotropy);
    case 'normal':
      return textureOf(maps.normal, true, anisotropy);
    case 'height':
      return textureOf(
        greyOf(height, (i) => 255 * height.values[i]),
        true,
        anisotropy,
      );
    case 'occlusion':
      return channel(0);
    case 'roughness':
      return channel(1);
    case 'metallic':
      return channel(2);
    case 'specular':
      return maps.specular && textureOf(maps.specular.map, true, anisotropy);
    case 'opacity':
      return maps.opacity ? textureOf(maps.opacity, true, anisotropy) : null;
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
