import { gaussian, Raster, TORUS } from '@zesty-tile/core';
import { noisePlane, planeOf, seeded } from '../core/test/fields.ts';

/** A made-up tile that repeats without a seam, with opacity where it has holes. */
export interface StyleKind {
  picture: Raster;
  alpha: Float32Array | null;
}

type Colour = readonly [number, number, number];

/** Soft noise about 0 that repeats, blurred by σ pixels and brought to a deviation of 1; so many times narrower than it is tall. */
function softNoise(size: number, sigma: number, seed: number, narrower = 1): Float32Array {
  const soft = gaussian(noisePlane(size * size, seed), size, size, sigma, TORUS);
  const plane = planeOf(size, size, (x, y) => soft[y * size + ((x * narrower) % size)]);
  const mean = plane.reduce((sum, value) => sum + value, 0) / plane.length;
  const spread = Math.sqrt(plane.reduce((sum, value) => sum + (value - mean) ** 2, 0) / plane.length);
  return plane.map((value) => (value - mean) / spread);
}

/** A picture by a tone and a colour of each pixel. */
function coloured(size: number, at: (x: number, y: number, i: number) => [number, Colour]): Raster {
  const planes = [0, 1, 2].map(() => new Float32Array(size * size));
  for (let i = 0; i < size * size; i++) {
    const [tone, colour] = at(i % size, Math.floor(i / size), i);
    for (let c = 0; c < 3; c++) planes[c][i] = Math.min(1, Math.max(0.002, tone * colour[c]));
  }
  return new Raster(size, size, planes);
}

/** Draws a shape about a place, over the edges: `of` gives a tone and a colour by place in pixels, or nothing. */
function draw(
  { width: size, planes }: Raster,
  alpha: Float32Array | null,
  [cx, cy]: [number, number],
  reach: number,
  of: (x: number, y: number) => [number, Colour] | null,
): void {
  for (let y = Math.floor(cy - reach); y <= cy + reach; y++) {
    for (let x = Math.floor(cx - reach); x <= cx + reach; x++) {
      const found = of(x - cx, y - cy);
      if (!found) continue;
      const i = (((y % size) + size) % size) * size + (((x % size) + size) % size);
      for (let c = 0; c < 3; c++) planes[c][i] = Math.min(1, Math.max(0.002, found[0] * found[1][c]));
      if (alpha) alpha[i] = 1;
    }
  }
}

const whole = (picture: Raster): StyleKind => ({ picture, alpha: null });

function boards(size: number): StyleKind {
  const [grain, stain] = [softNoise(size, 24, 3, 23), softNoise(size, 30, 4, 4)];
  const wide = size / 5;
  return whole(
    coloured(size, (x, _y, i) => {
      const board = Math.floor(x / wide);
      const gap = x % wide < size / 128 ? 0.25 : 1;
      return [gap * (0.9 + 0.1 * (board % 3)) * (1 + 0.12 * grain[i] + 0.1 * stain[i]), [0.32, 0.2, 0.11]];
    }),
  );
}

function brickwork(size: number): StyleKind {
  const [grain, patch] = [softNoise(size, 0.8, 5), softNoise(size, 7, 6)];
  const [wide, high, joint] = [size / 4, size / 8, size / 56];
  return whole(
    coloured(size, (x, y, i) => {
      const row = Math.floor(y / high);
      const along = (x + (row % 2) * (wide / 2)) % size;
      if (along % wide < joint || y % high < joint) return [0.9 + 0.08 * grain[i], [0.55, 0.52, 0.46]];
      const tone = 0.85 + 0.1 * ((Math.floor(along / wide) * 3 + row * 5) % 4);
      return [tone * (1 + 0.1 * grain[i] + 0.1 * patch[i]), [0.33, 0.14, 0.09]];
    }),
  );
}

function grassWithFlowers(size: number): StyleKind {
  const picture = coloured(size, () => [0.3, [0.12, 0.2, 0.05]]);
  const random = seeded(8);
  const place = (): [number, number] => [random() * size, random() * size];
  for (let k = 0; k < 2600; k++) {
    const [length, turn, tone] = [size * (0.02 + 0.04 * random()), 6.3 * random(), 0.5 + 0.9 * random()];
    const [c, s] = [Math.cos(turn), Math.sin(turn)];
    draw(picture, null, place(), length, (x, y) => {
      const [a, b] = [x * c + y * s, -x * s + y * c];
      const width = (size / 260) * (1 - Math.abs(a) / length);
      return Math.abs(b) < width ? [tone * (0.7 + (0.3 * (a + length)) / length), [0.12, 0.24, 0.05]] : null;
    });
  }
  for (let k = 0; k < 26; k++) {
    const radius = size * (0.014 + 0.01 * random());
    draw(picture, null, place(), radius, (x, y) => {
      const r = Math.hypot(x, y) / radius;
      if (r < 0.33) return [1 - 0.3 * r, [0.75, 0.5, 0.05]];
      const petal = Math.abs(Math.sin(4.5 * Math.atan2(y, x)));
      return r < 0.65 + 0.35 * petal ? [0.75 + 0.25 * petal, [0.85, 0.85, 0.82]] : null;
    });
  }
  return whole(picture);
}

function bark(size: number): StyleKind {
  const [ridge, fine, moss] = [
    softNoise(size, 26, 11, 5),
    softNoise(size, 5, 12, 5),
    softNoise(size, 16, 13),
  ];
  return whole(
    coloured(size, (_x, _y, i) => {
      const tone = 0.35 + 0.75 * Math.min(1, Math.abs(ridge[i])) + 0.12 * fine[i];
      return [tone, moss[i] > 1.1 ? [0.2, 0.24, 0.1] : [0.27, 0.2, 0.15]];
    }),
  );
}

function cloth(size: number): StyleKind {
  const noise = softNoise(size, 0.7, 14);
  const thread = size / 48;
  return whole(
    coloured(size, (x, y, i) => {
      const over = (Math.floor(x / thread) + Math.floor(y / thread)) % 2 === 0;
      const t = ((over ? y : x) % thread) / thread;
      const tone = (0.45 + 0.55 * Math.sin(Math.PI * t)) * (over ? 1 : 0.8) * (1 + 0.08 * noise[i]);
      return [tone, [0.42, 0.36, 0.28]];
    }),
  );
}

function crackedRock(size: number): StyleKind {
  const random = seeded(16);
  const points = Array.from({ length: 26 }, () => [random() * size, random() * size, random()]);
  const [rough, wander] = [softNoise(size, 1.5, 17), softNoise(size, 12, 18)];
  const around = (a: number, b: number) => {
    const d = Math.abs(a - b) % size;
    return Math.min(d, size - d);
  };
  return whole(
    coloured(size, (x, y, i) => {
      let [first, second, value] = [Infinity, Infinity, 0];
      for (const [px, py, of] of points) {
        const d = Math.hypot(around(x, px), around(y, py)) + 4 * wander[i];
        if (d < first) [first, second, value] = [d, first, of];
        else if (d < second) second = d;
      }
      const crack = Math.min(1, Math.max(0.2, (second - first) / (size / 70)));
      return [crack * (0.75 + 0.35 * value + 0.09 * rough[i]), [0.36, 0.33, 0.29]];
    }),
  );
}

function roofTiles(size: number): StyleKind {
  const [grain, stain] = [softNoise(size, 1, 20), softNoise(size, 24, 21, 2)];
  const [wide, high] = [size / 8, size / 6];
  return whole(
    coloured(size, (x, y, i) => {
      /** The lowest tile that covers the place: each row lies over the next. */
      for (let row = Math.floor(y / high); row >= Math.floor(y / high) - 1; row--) {
        const at = (((row % 6) + 6) % 6) % 2 === 0 ? x : x + wide / 2;
        const u = (at % wide) / wide - 0.5;
        const v = (y - row * high) / high;
        const end = 1.45 - 0.9 * u * u;
        if (row < Math.floor(y / high) ? v > end : false) continue;
        const number = (Math.floor(at / wide) * 7 + (((row % 6) + 6) % 6) * 3) % 5;
        const shade = row < Math.floor(y / high) ? 1 : Math.min(1, 0.45 + 1.2 * Math.abs(v - 0.45));
        const rim = Math.abs(u) > 0.47 ? 0.55 : 1;
        return [
          shade * rim * (0.8 + 0.08 * number) * (1 + 0.08 * grain[i] + 0.08 * stain[i]),
          [0.38, 0.17, 0.1],
        ];
      }
      return [0.2, [0.38, 0.17, 0.1]];
    }),
  );
}

function leaves(size: number): StyleKind {
  const picture = coloured(size, () => [0.2, [0.1, 0.1, 0.1]]);
  const alpha = new Float32Array(size * size);
  const random = seeded(23);
  for (let k = 0; k < 44; k++) {
    const [length, turn] = [size * (0.06 + 0.05 * random()), 6.3 * random()];
    const colour: Colour = [0.1 + 0.3 * random(), 0.22 + 0.12 * random(), 0.04];
    const [c, s] = [Math.cos(turn), Math.sin(turn)];
    draw(picture, alpha, [random() * size, random() * size], length, (x, y) => {
      const [a, b] = [(x * c + y * s) / length, (-x * s + y * c) / length];
      const half = 0.38 * (1 - a * a) * (1 - 0.25 * a);
      if (Math.abs(b) > half) return null;
      const vein = Math.abs(b) < 0.02 || Math.abs(Math.sin(14 * (a + Math.abs(b)))) < 0.08 ? 1.35 : 1;
      return [vein * (0.75 + (0.35 * b) / half), colour];
    });
  }
  return { picture, alpha };
}

/** Kinds of surfaces beside those of the demo, by their words. */
export const STYLE_KINDS: Record<string, (size: number) => StyleKind> = {
  Boards: boards,
  'Brickwork, light joints': brickwork,
  'Grass with flowers': grassWithFlowers,
  Bark: bark,
  Cloth: cloth,
  'Cracked rock': crackedRock,
  'Roof tiles': roofTiles,
  'Leaves with alpha': leaves,
};
