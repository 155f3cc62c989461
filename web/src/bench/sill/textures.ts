import * as THREE from 'three';
import type { ShownMaps } from '../../engine/protocol.ts';

/** The Sill's maps as textures; `dispose` frees them all. */
export interface SillTextures {
  albedo: THREE.Texture;
  normal: THREE.Texture;
  packed: THREE.Texture;
  opacity: THREE.Texture | null;
  height: THREE.Texture;
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

/** Uploads a set of maps. Row 0 is the picture's top, so the shapes' v runs downwards. */
export function texturesOf(maps: ShownMaps, anisotropy: number): SillTextures {
  const { size } = maps;
  const albedo = texture(maps.albedo, size, true, anisotropy);
  const normal = texture(maps.normal, size, false, anisotropy);
  const packed = texture(maps.packed, size, false, anisotropy);
  const opacity = maps.opacity ? texture(maps.opacity, size, false, anisotropy) : null;
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
  const all = [albedo, normal, packed, height, ...(opacity ? [opacity] : [])];
  return {
    albedo,
    normal,
    packed,
    opacity,
    height,
    dispose: () => {
      for (const one of all) one.dispose();
    },
  };
}
