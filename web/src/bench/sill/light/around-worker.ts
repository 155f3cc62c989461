import {
  type AroundName,
  BLURRED_AT,
  BLURRED_WIDTH,
  blurredPanorama,
  halvedPanorama,
  irradianceHarmonics,
  type Panorama,
  panoramaOf,
  placeUnder,
  skyLights,
} from '@zesty-tile/core';
import * as Comlink from 'comlink';
import { DataUtils } from 'three';
import type { AroundLight, AroundPicture, AroundWorker, Direction } from './around.ts';
import { readPanorama } from './read-panorama.ts';

/** Width of the panorama that light is gathered from. */
const WIDTH = 256;
/** Lights that stand for the sky; the more are taken of them, the finer its shadows. */
const LIGHTS = 256;

/** Four half floats a pixel, one picture below the other. */
function halves(panoramas: readonly Panorama[]): AroundPicture {
  const { width } = panoramas[0];
  const height = panoramas.reduce((sum, one) => sum + one.height, 0);
  const rgba = new Uint16Array(4 * width * height);
  const one = DataUtils.toHalfFloat(1);
  let at = 0;
  for (const { rgb } of panoramas) {
    for (let i = 0; i < rgb.length; i += 3, at += 4) {
      for (let c = 0; c < 3; c++) rgba[at + c] = DataUtils.toHalfFloat(Math.min(65000, rgb[i + c]));
      rgba[at + 3] = one;
    }
  }
  return { width, height, rgba };
}

/** The mean of what is seen up to 8° above the horizon. */
function horizonOf({ width, height, rgb }: Panorama): Direction {
  const first = height / 2;
  const rows = Math.max(1, Math.round((height * 8) / 180));
  const sum: Direction = [0, 0, 0];
  for (let i = 3 * first * width; i < 3 * (first + rows) * width; i++) sum[i % 3] += rgb[i];
  return sum.map((value) => value / (rows * width)) as Direction;
}

function lightOf(panorama: Panorama, sun: AroundLight['sun']): AroundLight {
  let small = panorama;
  while (small.width > WIDTH) small = halvedPanorama(small);
  const harmonics = irradianceHarmonics(small);
  return {
    picture: halves([panorama]),
    blurred: halves(BLURRED_AT.map((roughness) => blurredPanorama(small, roughness, BLURRED_WIDTH))),
    harmonics,
    below: irradianceHarmonics(small, 0),
    lights: skyLights(small, LIGHTS),
    horizon: horizonOf(small),
    sun,
  };
}

const carried = (light: AroundLight): AroundLight =>
  Comlink.transfer(light, [light.picture.rgba.buffer, light.blurred.rgba.buffer]);

const worker: AroundWorker = {
  async made(name: AroundName, sun: Direction) {
    const place = placeUnder(name, sun);
    return carried(lightOf(panoramaOf(place.radiance, WIDTH), place.sun));
  },
  async sharp(name, sun, width) {
    const picture = halves([panoramaOf(placeUnder(name, sun).radiance, width)]);
    return Comlink.transfer(picture, [picture.rgba.buffer]);
  },
  async own(format, bytes) {
    return carried(lightOf(await readPanorama(format, bytes), null));
  },
};

Comlink.expose(worker);
