import * as THREE from 'three';

/** Made-up surroundings of the Limonaia. */
export const SURROUNDINGS = ['overcast', 'terrace', 'lemon-house', 'dusk', 'studio'] as const;
export type SurroundingsName = (typeof SURROUNDINGS)[number];

export const SURROUNDINGS_WORDS: Record<SurroundingsName, string> = {
  overcast: 'Overcast',
  terrace: 'Noon terrace',
  'lemon-house': 'Lemon house',
  dusk: 'Dusk',
  studio: 'White studio',
};

type Colour = [number, number, number];

interface Place {
  /** Radiance from a direction: `turn` clockwise seen from above in radians, `rise` the sine of its height. */
  radiance(turn: number, rise: number): Colour;
  /** The sun's colour and strength. */
  sun: { colour: string; strength: number };
}

const mix = (a: Colour, b: Colour, t: number): Colour => [
  a[0] + (b[0] - a[0]) * t,
  a[1] + (b[1] - a[1]) * t,
  a[2] + (b[2] - a[2]) * t,
];
const step = (low: number, high: number, value: number): number => {
  const t = Math.min(1, Math.max(0, (value - low) / (high - low)));
  return t * t * (3 - 2 * t);
};
const grey = (v: number): Colour => [v, v, v];
/** 1 at a turn, falling off round it; `narrow` is how fast. */
const towards = (turn: number, at: number, narrow: number): number =>
  Math.max(0, Math.cos(turn - at)) ** narrow;

const PLACES: Record<SurroundingsName, Place> = {
  overcast: {
    radiance(turn, rise) {
      const window = 0.35 * towards(turn, 0.9, 4) * Math.max(0, 1 - Math.abs(rise - 0.35) * 3);
      const sky = 0.75 + 0.45 * Math.max(0, rise) + 2.2 * window;
      return mix(grey(0.28), grey(sky), step(-0.08, 0.08, rise));
    },
    sun: { colour: '#ffffff', strength: 2.4 },
  },
  // White walls, pale paving, a deep sky and hard sun.
  terrace: {
    radiance(turn, rise) {
      const sky = mix([0.95, 1.05, 1.2], [0.22, 0.42, 0.9], step(0, 0.8, rise));
      const wall: Colour = mix([1.3, 1.22, 1.05], [0.5, 0.52, 0.58], step(-0.2, 0.5, Math.sin(turn)));
      const isWall = step(0.28, 0.24, rise) * step(-0.4, 0.1, Math.cos(2 * turn));
      const above = mix(sky, wall, isWall);
      return mix([0.62, 0.5, 0.36], above, step(-0.03, 0.03, rise));
    },
    sun: { colour: '#fff4df', strength: 4.2 },
  },
  // Inside, under panes between dark bars, with green along the walls.
  'lemon-house': {
    radiance(turn, rise) {
      const bar = 0.5 + 0.5 * Math.cos(14 * turn);
      const pane = step(0.25, 0.6, bar) * step(0.05, 0.2, rise);
      const light = mix([0.07, 0.08, 0.06], [1.5, 1.6, 1.55], pane * (0.35 + 0.65 * towards(turn, 0.6, 2)));
      const leaves: Colour = mix(
        [0.06, 0.1, 0.03],
        [0.28, 0.3, 0.08],
        0.5 + 0.5 * Math.sin(23 * turn + 5 * rise),
      );
      const above = mix(leaves, light, step(0.02, 0.16, rise));
      return mix([0.14, 0.1, 0.08], above, step(-0.05, 0.05, rise));
    },
    sun: { colour: '#fff8ea', strength: 1.1 },
  },
  dusk: {
    radiance(turn, rise) {
      const glow = towards(turn, 0.5, 6) * Math.exp(-7 * Math.max(0, rise));
      const sky = mix([0.42, 0.3, 0.36], [0.05, 0.07, 0.18], step(0, 0.55, rise));
      const above: Colour = [sky[0] + 3.6 * glow, sky[1] + 1.5 * glow, sky[2] + 0.45 * glow];
      return mix([0.06, 0.05, 0.06], above, step(-0.03, 0.03, rise));
    },
    sun: { colour: '#ffb27a', strength: 1.5 },
  },
  // Two broad white lamps and a white ground.
  studio: {
    radiance(turn, rise) {
      const lamp = (at: number, height: number) =>
        step(0.75, 0.92, Math.cos(turn - at)) * step(0.34, 0.2, Math.abs(rise - height));
      const v = 0.42 + 0.2 * rise + 3.4 * lamp(0.9, 0.5) + 2.2 * lamp(-1.2, 0.35);
      return mix(grey(0.55), grey(v), step(-0.05, 0.05, rise));
    },
    sun: { colour: '#ffffff', strength: 1.2 },
  },
};

/** Whether surroundings are made up, and not a custom picture. */
export const isMadeUp = (name: string): name is SurroundingsName =>
  (SURROUNDINGS as readonly string[]).includes(name);

/** The sun of a place; beside a custom picture, whose light is in it already, a faint one. */
export const sunOf = (name: string): Place['sun'] =>
  isMadeUp(name) ? PLACES[name].sun : { colour: '#ffffff', strength: 1 };

const WIDTH = 128;
const HEIGHT = 64;

/** Mean radiance from above and from below, weighed by how much of a level surface's light comes from there. */
export function skyAndGround(name: SurroundingsName): { sky: THREE.Color; ground: THREE.Color } {
  const half = (sign: 1 | -1): THREE.Color => {
    const sum: Colour = [0, 0, 0];
    let weights = 0;
    for (let y = 0; y < 16; y++) {
      const rise = (y + 0.5) / 16;
      for (let x = 0; x < 48; x++) {
        const seen = PLACES[name].radiance((2 * Math.PI * x) / 48, sign * rise);
        for (let c = 0; c < 3; c++) sum[c] += rise * seen[c];
        weights += rise;
      }
    }
    return new THREE.Color(...sum).multiplyScalar(1 / weights);
  };
  return { sky: half(1), ground: half(-1) };
}

/** A picture twice as wide as high as what stands all round. */
export function allRound<T extends THREE.Texture>(texture: T): T {
  texture.mapping = THREE.EquirectangularReflectionMapping;
  texture.wrapS = THREE.RepeatWrapping;
  texture.magFilter = THREE.LinearFilter;
  texture.minFilter = THREE.LinearFilter;
  texture.needsUpdate = true;
  return texture;
}

/** Radiance all round, as an equirectangular float picture. */
export function surroundings(name: SurroundingsName): THREE.DataTexture {
  const data = new Float32Array(4 * WIDTH * HEIGHT);
  const { radiance } = PLACES[name];
  for (let y = 0; y < HEIGHT; y++) {
    // Row 0 is straight down.
    const rise = Math.sin(((y + 0.5) / HEIGHT - 0.5) * Math.PI);
    for (let x = 0; x < WIDTH; x++) {
      data.set([...radiance((2 * Math.PI * x) / WIDTH, rise), 1], 4 * (y * WIDTH + x));
    }
  }
  return allRound(new THREE.DataTexture(data, WIDTH, HEIGHT, THREE.RGBAFormat, THREE.FloatType));
}
