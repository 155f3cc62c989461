import { type DistantDisc, type Panorama, withDiscs } from '@zesty-tile/core';
import * as THREE from 'three';
import type { AroundPicture } from '../light/around.ts';
import { aroundTexture } from '../light/around-texture.ts';

/** As wide as a picture must be for the sun in it to be small. */
const WIDE = 1024;
/** The largest number that is written into half floats. */
const MOST_HALF = 60000;

/** A picture of what is all round, and by what its numbers are multiplied. */
export interface TracedSky {
  texture: THREE.DataTexture;
  by: number;
}

function panoramaOf({ width, height, rgba }: AroundPicture, strength: number): Panorama {
  const times = Math.max(1, Math.ceil(WIDE / width));
  const sides = { width: width * times, height: height * times };
  const rgb = new Float32Array(3 * sides.width * sides.height);
  for (let y = 0, to = 0; y < sides.height; y++) {
    for (let x = 0; x < sides.width; x++) {
      const at = 4 * (Math.floor(y / times) * width + Math.floor(x / times));
      for (let c = 0; c < 3; c++, to++) rgb[to] = strength * THREE.DataUtils.fromHalfFloat(rgba[at + c]);
    }
  }
  return { ...sides, rgb };
}

function textureOf({ width, height, rgb }: Panorama, by: number): THREE.DataTexture {
  const rgba = new Uint16Array(4 * width * height);
  for (let i = 0; i < width * height; i++) {
    for (let c = 0; c < 3; c++) rgba[4 * i + c] = THREE.DataUtils.toHalfFloat(rgb[3 * i + c] / by);
    rgba[4 * i + 3] = THREE.DataUtils.toHalfFloat(1);
  }
  return aroundTexture({ width, height, rgba });
}

/** What is all round as a path tracer takes it: the surroundings at their strength, with the sun and the lamps in them. */
export function tracedSky(
  picture: AroundPicture,
  strength: number,
  discs: readonly DistantDisc[],
): TracedSky {
  const whole = withDiscs(panoramaOf(picture, strength), discs);
  const brightest = whole.rgb.reduce((most, value) => Math.max(most, value), 0);
  const by = Math.max(1, brightest / MOST_HALF);
  return { texture: textureOf(whole, by), by };
}
