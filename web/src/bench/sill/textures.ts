import * as THREE from 'three';
import type { ShownMaps } from '../../engine/protocol.ts';
import type { SillMap } from './state.ts';

/** The Sill's maps as textures; `dispose` frees them all. */
export interface SillTextures {
  albedo: THREE.Texture;
  normal: THREE.Texture;
  packed: THREE.Texture;
  opacity: THREE.Texture | null;
  height: THREE.Texture;
  /** One map as it is looked at alone; null for what is one value all over. */
  alone: THREE.Texture | null;
  dispose(): void;
}

function texture(
  data: Uint8ClampedArray<ArrayBuffer>,
  size: number,
  colour: boolean,
  anisotropy: number,
): THREE.Texture {
  const made = new THREE.DataTexture(new Uint8Array(data.buffer), size, size, THREE.RGBAFormat);
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
function greyOf(count: number, valueAt: (i: number) => number): Uint8ClampedArray<ArrayBuffer> {
  const out = new Uint8ClampedArray(4 * count);
  for (let i = 0; i < count; i++) out.fill(valueAt(i), 4 * i, 4 * i + 3);
  for (let i = 3; i < out.length; i += 4) out[i] = 255;
  return out;
}

/** A data map is shown by its stored values: as if it were an sRGB picture, like a viewer would. */
function aloneOf(maps: ShownMaps, map: SillMap, anisotropy: number): THREE.Texture | null {
  const { size, packed, height } = maps;
  const channel = (k: number) =>
    texture(
      greyOf(size * size, (i) => packed[4 * i + k]),
      size,
      true,
      anisotropy,
    );
  switch (map) {
    case 'albedo':
      return texture(maps.albedo, size, true, anisotropy);
    case 'normal':
      return texture(maps.normal, size, true, anisotropy);
    case 'height':
      return texture(
        greyOf(height.size * height.size, (i) => 255 * height.values[i]),
        height.size,
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
      return null;
    case 'opacity':
      return maps.opacity ? texture(maps.opacity, size, true, anisotropy) : null;
  }
}

/** Uploads a set of maps. Row 0 is the picture's top, so the shapes' v runs downwards. */
export function texturesOf(maps: ShownMaps, anisotropy: number, alone: SillMap | null): SillTextures {
  const { size } = maps;
  const albedo = texture(maps.albedo, size, true, anisotropy);
  const normal = texture(maps.normal, size, false, anisotropy);
  const packed = texture(maps.packed, size, false, anisotropy);
  const opacity = maps.opacity ? texture(maps.opacity, size, false, anisotropy) : null;
  const single = alone && aloneOf(maps, alone, anisotropy);
  const height = new THREE.DataTexture(
    maps.height.values,
    maps.height.size,
    maps.height.size,
    THREE.RedFormat,
    THREE.FloatType,
  );
  height.wrapS = THREE.RepeatWrapping;
  height.wrapT = THREE.RepeatWrapping;
  height.magFilter = THREE.LinearFilter;
  height.minFilter = THREE.LinearFilter;
  height.needsUpdate = true;
  const all = [albedo, normal, packed, height, opacity, single];
  return {
    albedo,
    normal,
    packed,
    opacity,
    height,
    alone: single,
    dispose: () => {
      for (const one of all) one?.dispose();
    },
  };
}
