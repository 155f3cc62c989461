import { evenPoint, irradianceAt } from '@zesty-tile/core';
import type * as THREE from 'three';
import type { Direction } from '../light/around.ts';
import { type KeyLight, keyLight, LIGHT_AWAY } from '../light/key-light.ts';
import { LIT_BY } from '../light/lit-by.ts';
import { NOISE_STEP, SKY_SAMPLES, SUN_SAMPLES } from '../light/wide-shadows.ts';

/** Of so many frames one is lit by the sun, the others by a piece of the sky. */
const OF_SUN = 3;
/** How soft the shadow of a single piece of the sky would be, beside the reach of shadows; of more, smaller pieces it is harder. */
const SKY_SOFT = 0.22;
/** How far they keep from the surface that casts them: enough for light that falls aslant, so that a surface does not shade itself. */
const SKY_OFF_SURFACE = 0.03;
/** So much of the sky's light arrives from parts that it met first, from all sides. */
const BOUNCED = 0.22;
/** A surface that leans half way to the viewer: on it all pieces of the sky are to send what the sky sends. */
const CARD: Direction = [0, Math.SQRT1_2, Math.SQRT1_2];

const dot = (a: Direction, b: Direction) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const isDark = (colour: Direction) => Math.max(...colour) <= 0;

/** Where the k-th frame looks between the pixels, −½…½. */
export const betweenPixels = (k: number): [number, number] =>
  evenPoint(k).map((value) => value - 0.5) as [number, number];

/** A direction to the k-th point of the sun's disc. */
function onDisc({ towards, radius }: KeyLight['sun'], k: number): Direction {
  const [outwards, round] = evenPoint(k);
  const away = radius * Math.sqrt(outwards);
  const turn = 2 * Math.PI * round;
  const [x, y, z] = towards;
  const length = Math.hypot(x, z) || 1;
  const side: Direction = Math.hypot(x, z) > 1e-4 ? [z / length, 0, -x / length] : [1, 0, 0];
  const up: Direction = [y * side[2] - z * side[1], z * side[0] - x * side[2], x * side[1] - y * side[0]];
  const [a, b] = [away * Math.cos(turn), away * Math.sin(turn)];
  return towards.map((value, c) => value + a * side[c] + b * up[c]) as Direction;
}

/** By what each colour of so many lights of the sky is multiplied, so that together they send what comes straight from the sky on the card. */
function balance({ sky, harmonics, below }: KeyLight, count: number, amount: number): Direction {
  const upper = irradianceAt(harmonics, CARD).map((value, c) => value - irradianceAt(below, CARD)[c]);
  return [0, 1, 2].map((c) => {
    const sent = sky
      .slice(0, count)
      .reduce((sum, one) => sum + one.irradiance[c] * Math.max(0, dot(one.towards, CARD)), 0);
    return sent > 0 ? (amount * (1 - BOUNCED) * upper[c] * count) / sent : 0;
  }) as Direction;
}

function put(light: THREE.DirectionalLight, towards: Direction, colour: Direction, by: number): void {
  light.position.set(towards[0] * LIGHT_AWAY, towards[1] * LIGHT_AWAY, towards[2] * LIGHT_AWAY);
  light.color.setRGB(colour[0] * by, colour[1] * by, colour[2] * by);
}

const setHarmonics = (harmonics: readonly Direction[]) =>
  harmonics.forEach((one, k) => {
    LIT_BY.zHarmonics.value[k].set(...one);
  });

/** Whether light can be gathered over frames: where a light casts shadows. */
export const canGather = (): boolean => keyLight.now?.light.castShadow === true;

/**
 * Lights one of many frames whose mean is the whole light (the accumulation buffer, Haeberli & Akeley 1990): by a point of the
 * sun's disc, so that shadows harden where they meet what casts them, or by a piece of the sky, so that it is hidden where it
 * is. From below light comes unhindered, as from lit ground. What is given back ends it.
 */
export function lightFrame(k: number, count: number): () => void {
  const key = keyLight.now;
  if (!key) return () => undefined;
  const { light, lamps, sun, sky, harmonics, below } = key;
  const amount = LIT_BY.zAmount.value;
  const hasSun = !isDark(sun.irradiance) || lamps.length > 0;
  const hasSky = amount > 0;
  const suns = !hasSun ? 0 : !hasSky ? count : Math.ceil(count / OF_SUN);
  const isSun = hasSun && (!hasSky || k % OF_SUN === 0);
  const [colour, position] = [light.color.clone(), light.position.clone()];
  const { radius: soft, normalBias } = light.shadow;
  LIT_BY.zNoiseShift.value = NOISE_STEP * k;
  const strengths = lamps.map(({ intensity }) => intensity);
  if (isSun) {
    const by = count / suns;
    put(light, onDisc(sun, Math.floor(k / (hasSky ? OF_SUN : 1))), sun.irradiance, by);
    lamps.forEach((lamp) => {
      lamp.intensity *= by;
    });
  } else {
    const skies = count - suns;
    const one = sky[(hasSun ? k - Math.floor(k / OF_SUN) - 1 : k) % sky.length];
    const even = balance(key, Math.min(skies, sky.length), amount);
    put(light, one.towards, one.irradiance.map((value, c) => value * even[c]) as Direction, count / skies);
    light.shadow.radius = (SKY_SOFT * light.shadow.mapSize.width) / Math.sqrt(skies);
    light.shadow.normalBias = SKY_OFF_SURFACE;
    LIT_BY.zShadowSamples.value = SKY_SAMPLES;
    // What they mirror is in the surroundings' picture already.
    LIT_BY.zSheen.value = 0;
    if (hasSun)
      lamps.forEach((lamp) => {
        lamp.intensity = 0;
      });
  }
  setHarmonics(
    below.map((one, n) => one.map((value, c) => value + BOUNCED * (harmonics[n][c] - value)) as Direction),
  );
  return () => {
    light.color.copy(colour);
    light.position.copy(position);
    light.shadow.radius = soft;
    light.shadow.normalBias = normalBias;
    lamps.forEach((lamp, n) => {
      lamp.intensity = strengths[n];
    });
    LIT_BY.zSheen.value = 1;
    LIT_BY.zNoiseShift.value = 0;
    LIT_BY.zShadowSamples.value = SUN_SAMPLES;
    setHarmonics(harmonics);
  };
}
