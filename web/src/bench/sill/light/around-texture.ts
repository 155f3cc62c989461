import * as THREE from 'three';
import type { AroundPicture } from './around.ts';

/** A picture of what is all round, as the graphics card looks it up. */
export function aroundTexture({ rgba, width, height }: AroundPicture): THREE.DataTexture {
  const made = new THREE.DataTexture(rgba, width, height, THREE.RGBAFormat, THREE.HalfFloatType);
  made.wrapS = THREE.RepeatWrapping;
  made.magFilter = THREE.LinearFilter;
  made.minFilter = THREE.LinearFilter;
  made.needsUpdate = true;
  return made;
}
