import { irradianceAt, irradianceHarmonics, panoramaOf, placeUnder, skyLights } from '@zesty-tile/core';
import { expect } from 'chai';
import { DirectionalLight } from 'three';
import { betweenPixels, canGather, lightFrame } from '../src/bench/sill/frame/gathering.ts';
import type { Direction } from '../src/bench/sill/light/around.ts';
import { turned } from '../src/bench/sill/light/exposure.ts';
import { keyLight } from '../src/bench/sill/light/key-light.ts';
import { LIT_BY } from '../src/bench/sill/light/lit-by.ts';

const TOWARDS: Direction = [-0.48, 0.6, 0.64];
const CARD: Direction = [0, Math.SQRT1_2, Math.SQRT1_2];
const COUNT = 96;

/** A key light under one of the surroundings, its sun times `sun`. */
function lightUnder(name: 'overcast' | 'terrace', sun: number) {
  const place = placeUnder(name, TOWARDS);
  const panorama = panoramaOf(place.radiance, 64);
  const light = new DirectionalLight();
  light.castShadow = true;
  const lamp = new DirectionalLight();
  lamp.position.set(0, 8, 0);
  keyLight.now = {
    light,
    lamps: [lamp],
    sun: {
      towards: TOWARDS,
      irradiance: place.sun.irradiance.map((value) => value * sun) as Direction,
      radius: 0.02,
    },
    sky: skyLights(panorama, COUNT),
    harmonics: irradianceHarmonics(panorama),
    below: irradianceHarmonics(panorama, 0),
  };
  return keyLight.now;
}

/** Green light that falls on a surface now, from the key light, the lamps, and the harmonics that are set. */
function fallsOn(normal: Direction): number {
  const { light, lamps } = keyLight.now!;
  const from = (one: DirectionalLight) => {
    const { x, y, z } = one.position.clone().normalize();
    const facing = x * normal[0] + y * normal[1] + z * normal[2];
    return one.color.g * one.intensity * Math.max(0, facing);
  };
  const harmonics = LIT_BY.zHarmonics.value.map((one) => one.toArray() as Direction);
  return from(light) + lamps.reduce((sum, one) => sum + from(one), 0) + irradianceAt(harmonics, normal)[1];
}

describe('light that is gathered over frames', () => {
  afterEach(() => {
    keyLight.now = null;
  });

  for (const [name, sun] of [
    ['overcast', 1],
    ['terrace', 1],
    ['terrace', 0],
  ] as const) {
    it(`is in the mean all the light there is: ${name}, sun times ${sun}`, () => {
      const { harmonics, lamps } = lightUnder(name, sun);
      let sum = 0;
      for (let k = 0; k < COUNT; k++) {
        const end = lightFrame(k, COUNT);
        sum += fallsOn(CARD) / COUNT;
        end();
      }
      const { irradiance } = keyLight.now!.sun;
      const facing = TOWARDS.reduce((part, value, c) => part + value * CARD[c], 0);
      const lamp = lamps[0].intensity * CARD[1];
      expect(sum / (irradianceAt(harmonics, CARD)[1] + irradiance[1] * facing + lamp)).to.be.within(
        0.99,
        1.01,
      );
    });
  }

  it('leaves lights as they were, and what they mirror counts once', () => {
    const { light, lamps, harmonics } = lightUnder('terrace', 1);
    light.position.set(1, 2, 3);
    light.color.setRGB(0.1, 0.2, 0.3);
    let sheens = 0;
    for (let k = 0; k < COUNT; k++) {
      const end = lightFrame(k, COUNT);
      sheens += (LIT_BY.zSheen.value * lamps[0].intensity) / COUNT;
      end();
    }
    expect(sheens).to.be.closeTo(1, 1e-9);
    expect(light.position.toArray()).to.deep.equal([1, 2, 3]);
    expect([light.color.r, light.color.g, light.color.b]).to.deep.equal([0.1, 0.2, 0.3]);
    expect(LIT_BY.zSheen.value).to.equal(1);
    expect(LIT_BY.zHarmonics.value[0].toArray()).to.deep.equal(harmonics[0]);
  });

  it('shadows of the sky are softer where fewer pieces send its light, and their noise differs from frame to frame', () => {
    const { light } = lightUnder('terrace', 0);
    const [few, many] = [12, COUNT].map((count) => {
      const shifts = new Set<number>();
      let soft = 0;
      for (let k = 0; k < count; k++) {
        const end = lightFrame(k, count);
        shifts.add(LIT_BY.zNoiseShift.value);
        soft = light.shadow.radius / light.shadow.mapSize.width;
        end();
      }
      expect(shifts.size).to.equal(count);
      return soft;
    });
    // A piece twice as wide for each four times fewer pieces.
    expect(few / many).to.be.closeTo(Math.sqrt(COUNT / 12), 1e-9);
    expect(LIT_BY.zNoiseShift.value).to.equal(0);
  });

  it('frames look between the pixels evenly, the same each time', () => {
    const all = Array.from({ length: COUNT }, (_, k) => betweenPixels(k));
    for (const axis of [0, 1] as const) {
      const values = all.map((one) => one[axis]);
      expect(Math.abs(values.reduce((a, b) => a + b, 0) / COUNT)).to.be.below(0.02);
      expect(Math.max(...values) - Math.min(...values)).to.be.within(0.9, 1);
    }
    expect(betweenPixels(7)).to.deep.equal(all[7]);
  });

  it('needs a light that casts shadows', () => {
    expect(canGather()).to.equal(false);
    lightUnder('overcast', 1).light.castShadow = false;
    expect(canGather()).to.equal(false);
    keyLight.now!.light.castShadow = true;
    expect(canGather()).to.equal(true);
  });

  it('surroundings are rotated back by the opposite angle', () => {
    const there = turned(TOWARDS, 1.1);
    turned(there, -1.1).forEach((value, c) => {
      expect(value).to.be.closeTo(TOWARDS[c], 1e-12);
    });
    expect(there[1]).to.equal(TOWARDS[1]);
  });
});
