import { dot, type Triple, unit } from '../shade.ts';
import { fractalAt } from './clouds.ts';
import { mix, mixed, plus, scaled, smooth, times } from './mixing.ts';
import { clearSky, cloudedSky, sunLight } from './sky.ts';

/** Surroundings of the Limonaia. */
export const AROUND_NAMES = ['overcast', 'terrace', 'lemon-house', 'dusk', 'studio'] as const;
export type AroundName = (typeof AROUND_NAMES)[number];

/** The sun of a place: what it sends on a surface that faces it, and half of the angle it is seen under, in radians. */
export interface PlaceSun {
  irradiance: Triple;
  radius: number;
}

/** What lies around a shape, without the sun's disc, and its sun. Linear sRGB; radiance 1 is 10 kcd/m² outdoors. */
export interface Place {
  radiance(towards: Triple): Triple;
  sun: PlaceSun;
}

/** Half of the angle under which the sun is seen, a little hazy. */
const SUN_RADIUS = (0.4 * Math.PI) / 180;

const PAVING: Triple = [0.36, 0.31, 0.25];
const GRASS: Triple = [0.075, 0.1, 0.035];
const STRAW: Triple = [0.2, 0.165, 0.075];
const HILLS: Triple = [0.05, 0.075, 0.045];

/** Irradiance of the upper half of what is around on level ground. */
function onLevel(radiance: (towards: Triple) => Triple): Triple {
  const [rows, columns] = [12, 24];
  let sum: Triple = [0, 0, 0];
  for (let j = 0; j < rows; j++) {
    // Equal steps in the square of the sine: each holds as much of a level surface's light.
    const rise = Math.sqrt((j + 0.5) / rows);
    const flat = Math.sqrt(1 - rise * rise);
    for (let i = 0; i < columns; i++) {
      const turn = (2 * Math.PI * (i + 0.5)) / columns;
      sum = plus(sum, radiance([flat * Math.sin(turn), rise, flat * Math.cos(turn)]));
    }
  }
  return scaled(sum, Math.PI / (rows * columns));
}

/** How high the hills are at a turn, as a sine. */
const hillsAt = (turn: number): number =>
  0.06 + 0.04 * Math.sin(turn + 0.7) + 0.022 * Math.sin(3 * turn) + 0.007 * Math.sin(11 * turn + 2);

/** Open land under a sky: hills at the horizon, grass, and paving about the middle. */
function outdoors(sky: (towards: Triple) => Triple, sun: PlaceSun, towardsSun: Triple, haze: number): Place {
  const level = plus(onLevel(sky), scaled(sun.irradiance, Math.max(0.02, towardsSun[1])));
  const lit = scaled(level, 1 / Math.PI);
  const radiance = (towards: Triple): Triple => {
    const [x, y, z] = towards;
    if (y > 0.14) return sky(towards);
    const turn = Math.atan2(x, z);
    const above = sky([x, Math.max(0.012, y), z]);
    const horizon = sky([x, 0.005, z]);
    const ridge = hillsAt(turn);
    const leaves = fractalAt(30 * turn + 200, 60 * y, 3, 3);
    const hills = mixed(times(scaled(HILLS, 0.55 + 0.9 * leaves), lit), horizon, haze);
    const back = mixed(hills, above, smooth(ridge - 0.002, ridge + 0.002, y));
    if (y > 0.004) return back;
    // Where the look meets the ground, at the height of the eyes above it.
    const far = 1.6 / Math.max(0.002, -y);
    const [px, pz] = [x * far, z * far];
    const grain = 0.75 + 0.5 * fractalAt(2.2 * px + 500, 2.2 * pz + 500, 1, 4);
    const fields = mixed(GRASS, STRAW, smooth(0.42, 0.68, fractalAt(0.05 * px + 30, 0.05 * pz + 60, 4, 4)));
    const land = mixed(
      PAVING,
      fields,
      smooth(5, 9, Math.hypot(px, pz) + 3 * fractalAt(px + 90, pz + 90, 7, 2)),
    );
    const ground = mixed(times(scaled(land, grain), lit), horizon, haze * smooth(8, 300, far));
    return mixed(ground, back, smooth(-0.004, 0.004, y));
  };
  return { radiance, sun };
}

/** A sky with clouds that the sun lights: how much of it they cover, 0…1, and how bright they are. */
function withClouds(
  sky: (towards: Triple) => Triple,
  sun: Triple,
  cover: number,
  white: Triple,
): (towards: Triple) => Triple {
  return (towards) => {
    const clear = sky(towards);
    const rise = Math.max(0.02, towards[1] + 0.12);
    const [x, z] = [towards[0] / rise, towards[2] / rise];
    const thick = smooth(1 - cover, 1.16 - cover, fractalAt(1.1 * x + 40, 1.1 * z + 40, 2, 6));
    if (thick <= 0) return clear;
    const shade = fractalAt(1.1 * x + 40 + 0.35 * sun[0], 1.1 * z + 40 + 0.35 * sun[2], 2, 4);
    const edge = 1 + 0.8 * Math.max(0, dot(towards, sun)) ** 6;
    const bright = mix(1.1, 0.58, smooth(0.35, 0.8, shade)) * edge;
    return mixed(clear, scaled(white, bright), 0.85 * thick * smooth(0, 0.12, towards[1]));
  };
}

/** A sky with haze over the horizon, which scatters the light of all the sky and so is nearly white. */
function withHaze(sky: (towards: Triple) => Triple): (towards: Triple) => Triple {
  const level = scaled(onLevel(sky), 1 / Math.PI);
  const white = scaled([1.35, 1.45, 1.58], level[1]);
  return (towards) => mixed(sky(towards), white, 0.8 * Math.exp(-7 * Math.max(0, towards[1])));
}

function overcast(towardsSun: Triple): Place {
  const zenith = 0.85;
  const sky = (towards: Triple): Triple => {
    const rise = Math.max(0.05, towards[1] + 0.15);
    const cloud = fractalAt((1.3 * towards[0]) / rise + 70, (1.3 * towards[2]) / rise + 70, 5, 5);
    const glow = 1 + 1.1 * Math.max(0, dot(towards, towardsSun)) ** 5;
    const value = zenith * cloudedSky(towards[1]) * mix(0.72, 1.22, cloud) * glow;
    return [value * 0.97, value, value * 1.04];
  };
  // A sun behind thin cloud: weak, and broad enough for soft shadows.
  const sun = { irradiance: [0.81, 0.8, 0.77] as Triple, radius: (5 * Math.PI) / 180 };
  return outdoors(sky, sun, towardsSun, 0.55);
}

function clearDay(towardsSun: Triple): Place {
  const turbidity = 4;
  const clear = withHaze(clearSky(turbidity, towardsSun));
  const sky = withClouds(clear, towardsSun, 0.5, [2.3, 2.27, 2.22]);
  const sun = { irradiance: sunLight(turbidity, towardsSun), radius: SUN_RADIUS };
  return outdoors(sky, sun, towardsSun, 0.45);
}

/** The sun of dusk is low, wherever the light is sent from: its direction gives the side of the sky that glows. */
function dusk(towardsSun: Triple): Place {
  const low = unit([towardsSun[0], 0.05 * Math.hypot(towardsSun[0], towardsSun[2]) + 1e-3, towardsSun[2]]);
  const turbidity = 3.6;
  const sky = withClouds(clearSky(turbidity, low), low, 0.5, [0.16, 0.09, 0.075]);
  const sun = { irradiance: sunLight(turbidity, [0, 0.07, 1]), radius: 2 * SUN_RADIUS };
  return outdoors(sky, sun, low, 0.6);
}

/** Inside the lemon house: a glazed front between timber posts on one side, white walls, pots of green along them, tiles underfoot. */
function lemonHouse(): Place {
  const front = 0.75;
  const radiance = ([x, y, z]: Triple): Triple => {
    const turn = Math.atan2(x, z) - front;
    const across = Math.cos(turn);
    const floor: Triple = scaled([0.2, 0.13, 0.095], 0.5 + 0.9 * Math.max(0, across));
    if (y < -0.3 - 0.02 * Math.cos(9 * turn)) {
      const far = 1.6 / -y;
      const joint = smooth(0.04, 0.07, Math.abs(((4 * x * far) % 1) + 0.5)) * 0.25 + 0.75;
      return scaled(floor, joint);
    }
    const wall: Triple = scaled([0.34, 0.33, 0.3], 0.6 + 0.7 * Math.max(0, across));
    const roof: Triple = [0.1, 0.085, 0.07];
    const beam = smooth(0.3, 0.36, Math.abs(Math.sin(5 * turn)));
    let seen = mixed(mixed(roof, wall, beam * 0.4), wall, smooth(0.75, 0.6, y));
    // The panes, six posts wide, from knee to above the head.
    const open = smooth(0.2, 0.3, across);
    const post = smooth(0.1, 0.2, Math.abs(Math.sin(4.5 * turn)));
    const bar = smooth(0.03, 0.07, Math.abs(Math.sin(7 * y + 0.4)));
    const height = smooth(-0.26, -0.23, y) * smooth(0.72, 0.68, y);
    const outside: Triple = mixed([1.25, 1.35, 1.2], [2.5, 2.7, 3], smooth(0, 0.5, y));
    const garden = mixed(
      [0.2, 0.32, 0.12],
      outside,
      smooth(0.02, 0.08, y - 0.05 * fractalAt(9 * turn + 30, 4, 1, 3)),
    );
    seen = mixed(seen, garden, open * post * bar * height);
    const crown = 0.3 + 0.14 * Math.cos(9 * turn);
    const green = fractalAt(14 * turn + 90, 14 * y + 30, 4, 4);
    const bush =
      smooth(0.22, 0.34, green) * smooth(crown, crown - 0.12, Math.abs(y + 0.06)) * smooth(0.35, 0.1, across);
    return mixed(seen, scaled([0.08, 0.12, 0.03], 0.5 + green), bush);
  };
  return { radiance, sun: { irradiance: [1.5, 1.45, 1.34], radius: (1.2 * Math.PI) / 180 } };
}

/** A white room with two broad lamps. */
function studio(): Place {
  const lamp = ([x, y, z]: Triple, at: Triple, wide: number, high: number): number => {
    const along = dot([x, y, z], at);
    if (along <= 0) return 0;
    const side = unit([at[2], 0, -at[0]]);
    const [u, v] = [dot([x, y, z], side) / along, (y - at[1] * along) / along];
    return smooth(1.04, 0.92, Math.abs(u) / wide) * smooth(1.04, 0.92, Math.abs(v) / high);
  };
  const [left, right] = [unit([-0.8, 0.55, 0.6]), unit([0.95, 0.3, 0.25])];
  const radiance = (towards: Triple): Triple => {
    const y = towards[1];
    const wall = mix(0.3, 0.44, smooth(-0.1, 0.9, y));
    const value = mix(0.34, wall, smooth(-0.35, 0.05, y));
    const light = 4.2 * lamp(towards, left, 0.55, 0.55) + 2.2 * lamp(towards, right, 0.3, 0.7);
    return [value + light, value + light, value + light];
  };
  return { radiance, sun: { irradiance: [1.3, 1.3, 1.3], radius: (6 * Math.PI) / 180 } };
}

/** One of the surroundings for a unit vector to the sun, y up and z towards the viewer. */
export function placeUnder(name: AroundName, towardsSun: Triple): Place {
  switch (name) {
    case 'overcast':
      return overcast(towardsSun);
    case 'terrace':
      return clearDay(towardsSun);
    case 'lemon-house':
      return lemonHouse();
    case 'dusk':
      return dusk(towardsSun);
    case 'studio':
      return studio();
  }
}
