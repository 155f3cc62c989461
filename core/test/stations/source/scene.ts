import { linearToSrgb } from '../../../src/colour/srgb.ts';
import type { Pixels } from '../../../src/pixels/pixels.ts';
import { type LightDirection, vectorOf } from '../../../src/stations/source/shots/light.ts';
import { noisePlane } from '../../fields.ts';

/** A surface of known height and colour, seen from straight above, at `size` pixels. It meets itself. */
export interface Scene {
  size: number;
  /** In pixels. */
  height: Float32Array;
  albedo: Float32Array[];
  /** Unit vectors, y up. */
  normal: Float32Array[];
  /** Highlight's share, where that of the matte light is 1. */
  shine: number;
}

/** Softened noise −1…1 of so many cells that meets itself. */
function softNoise(size: number, cells: number, seed: number): Float32Array {
  const plane = noisePlane(cells * cells, seed);
  const out = new Float32Array(size * size);
  const at = (i: number, j: number) => plane[((j + cells) % cells) * cells + ((i + cells) % cells)];
  const ease = (t: number) => t * t * t * (t * (6 * t - 15) + 10);
  for (let y = 0; y < size; y++)
    for (let x = 0; x < size; x++) {
      const [u, v] = [(x / size) * cells, (y / size) * cells];
      const [i, j] = [Math.floor(u), Math.floor(v)];
      const [s, t] = [ease(u - i), ease(v - j)];
      const top = at(i, j) + s * (at(i + 1, j) - at(i, j));
      const low = at(i, j + 1) + s * (at(i + 1, j + 1) - at(i, j + 1));
      out[y * size + x] = 2 * (top + t * (low - top)) - 1;
    }
  return out;
}

export function sceneOf(size: number, { relief = 1, shine = 0, paint = 1, seed = 1 } = {}): Scene {
  const [broad, middle, fine] = [6, 20, 64].map((cells, k) => softNoise(size, cells, seed + k));
  const height = new Float32Array(size * size);
  for (let i = 0; i < height.length; i++) {
    const stone = Math.max(-0.2, broad[i] + 0.3 * middle[i]);
    height[i] = relief * size * (0.022 * stone + 0.006 * middle[i] + 0.0012 * fine[i]);
  }
  const tint = [5, 30, 100].map((cells, k) => softNoise(size, cells, seed + 10 + k));
  const albedo = [0.36, 0.27, 0.19].map((base, c) =>
    Float32Array.from(height, (_, i) => {
      const pattern = 0.35 * tint[0][i] + 0.25 * tint[1][i] + 0.2 * tint[2][i];
      const patch = tint[0][i] > 0.3 ? (c === 0 ? 0.8 : 1.3) : 1;
      return Math.min(0.9, base * patch * Math.exp(paint * pattern));
    }),
  );
  const normal = [0, 1, 2].map(() => new Float32Array(size * size));
  const at = (x: number, y: number) => height[((y + size) % size) * size + ((x + size) % size)];
  for (let y = 0; y < size; y++)
    for (let x = 0; x < size; x++) {
      const p = (at(x + 1, y) - at(x - 1, y)) / 2;
      const q = (at(x, y - 1) - at(x, y + 1)) / 2;
      const length = Math.hypot(p, q, 1);
      const k = y * size + x;
      normal[0][k] = -p / length;
      normal[1][k] = -q / length;
      normal[2][k] = 1 / length;
    }
  return { size, height, albedo, normal, shine };
}

export interface Shot {
  light: LightDirection;
  strength?: number;
  ambient?: number;
  noise?: number;
  /** Where the camera looks: a point of the picture to one of the scene, in pixels. */
  camera?: (x: number, y: number) => [number, number];
  /** Distance of the lamp from the middle, in widths of the picture. */
  distance?: number;
  seed?: number;
  casts?: boolean;
}

/** Height between four pixels, of a surface that meets itself. */
function heightAt({ size, height }: Scene, x: number, y: number): number {
  const [i, j] = [Math.floor(x), Math.floor(y)];
  const [s, t] = [x - i, y - j];
  const right = (i + 1) % size;
  const top = (j % size) * size;
  const low = ((j + 1) % size) * size;
  const above = height[top + i] + s * (height[top + right] - height[top + i]);
  const below = height[low + i] + s * (height[low + right] - height[low + i]);
  return above + t * (below - above);
}

/** Whether another part of the surface stands between a point and the light. */
function isShaded(
  scene: Scene,
  x: number,
  y: number,
  [lx, ly, lz]: readonly number[],
  most: number,
): boolean {
  const { size, height } = scene;
  const flat = Math.hypot(lx, ly);
  if (flat < 1e-6) return false;
  const [dx, dy, rise] = [lx / flat, -ly / flat, lz / flat];
  const from = height[y * size + x] + 0.05;
  for (let d = 1; from + d * rise < most; d++) {
    const px = (((x + dx * d) % size) + size) % size;
    const py = (((y + dy * d) % size) + size) % size;
    if (heightAt(scene, px, py) > from + d * rise) return true;
  }
  return false;
}

/** Linear RGB of the scene in one light. */
export function litScene(
  scene: Scene,
  { light, strength = 1, ambient = 0, distance = 0, casts = true }: Shot,
): Float32Array[] {
  const { size, albedo, normal, shine } = scene;
  const far = vectorOf(light);
  const out = albedo.map((plane) => new Float32Array(plane.length));
  const most = scene.height.reduce((a, b) => Math.max(a, b), -1e9);
  for (let y = 0, k = 0; y < size; y++)
    for (let x = 0; x < size; x++, k++) {
      let l: number[] = far;
      let e = strength;
      if (distance > 0) {
        const v = [
          far[0] * distance - (x / size - 0.5),
          far[1] * distance + (y / size - 0.5),
          far[2] * distance,
        ];
        const length = Math.hypot(...v);
        l = v.map((value) => value / length);
        e *= (distance / length) ** 2;
      }
      const facing = Math.max(0, normal[0][k] * l[0] + normal[1][k] * l[1] + normal[2][k] * l[2]);
      const isLit = facing > 0 && !(casts && isShaded(scene, x, y, l, most));
      const half = [l[0], l[1], l[2] + 1];
      const length = Math.hypot(...half);
      const mirror = Math.max(
        0,
        (normal[0][k] * half[0] + normal[1][k] * half[1] + normal[2][k] * half[2]) / length,
      );
      for (let c = 0; c < 3; c++) {
        const matte = albedo[c][k] * ((isLit ? facing * e : 0) + ambient);
        out[c][k] = matte + (isLit ? shine * e * mirror ** 40 : 0);
      }
    }
  return out;
}

/** A photo of the scene, 16 bits. `gain` is the exposure. */
export function photographed(scene: Scene, shot: Shot, gain = 0.9): Pixels {
  const { size } = scene;
  const lit = litScene(scene, shot);
  const { noise = 0, camera, seed = 1 } = shot;
  const grain = noise > 0 ? [1, 2, 3].map((c) => gaussianNoise(size * size, seed * 10 + c)) : null;
  const data = new Uint16Array(size * size * 3);
  for (let y = 0, k = 0; y < size; y++)
    for (let x = 0; x < size; x++, k++)
      for (let c = 0; c < 3; c++) {
        const value = camera ? sampled(lit[c], size, ...camera(x, y)) : lit[c][k];
        const seen = value * gain + (grain ? noise * grain[c][k] : 0);
        data[3 * k + c] = Math.round(65535 * linearToSrgb(Math.min(1, Math.max(0, seen))));
      }
  return { width: size, height: size, channels: 3, data, originalWidth: size, originalHeight: size };
}

function gaussianNoise(count: number, seed: number): Float32Array {
  const [u, v] = [noisePlane(count, seed), noisePlane(count, seed + 7777)];
  return u.map((value, i) => Math.sqrt(-2 * Math.log(Math.max(1e-9, value))) * Math.cos(2 * Math.PI * v[i]));
}

const keys = (t: number): number[] => [
  -0.5 * t + t * t - 0.5 * t ** 3,
  1 - 2.5 * t * t + 1.5 * t ** 3,
  0.5 * t + 2 * t * t - 1.5 * t ** 3,
  -0.5 * t * t + 0.5 * t ** 3,
];

/** A plane that meets itself between its points (Keys 1981). */
function sampled(plane: Float32Array, size: number, x: number, y: number): number {
  const [i, j] = [Math.floor(x), Math.floor(y)];
  const [wx, wy] = [keys(x - i), keys(y - j)];
  let sum = 0;
  for (let b = 0; b < 4; b++)
    for (let a = 0; a < 4; a++)
      sum += wx[a] * wy[b] * plane[((j + b - 1 + 2 * size) % size) * size + ((i + a - 1 + 2 * size) % size)];
  return sum;
}

/** A shot with a ball put into it, matte or shiny; its place in shares of the edge. */
export function withBall(
  shot: Pixels,
  { x, y, radius }: { x: number; y: number; radius: number },
  light: LightDirection,
  isShiny: boolean,
): Pixels {
  const { width } = shot;
  const data = new Uint16Array(shot.data);
  const l = vectorOf(light);
  const [cx, cy, r] = [x * width - 0.5, y * width - 0.5, radius * width];
  for (let j = 0; j < width; j++) {
    for (let i = 0; i < width; i++) {
      const [u, v] = [(i - cx) / r, (cy - j) / r];
      const square = u * u + v * v;
      if (square > 1) continue;
      const n = [u, v, Math.sqrt(1 - square)];
      const facing = Math.max(0, n[0] * l[0] + n[1] * l[1] + n[2] * l[2]);
      const mirrored = 2 * n[2] * (n[0] * l[0] + n[1] * l[1] + n[2] * l[2]) - l[2];
      const value = isShiny ? 0.02 + 0.9 * Math.max(0, mirrored) ** 200 : 0.5 * facing;
      for (let c = 0; c < 3; c++) data[3 * (j * width + i) + c] = Math.round(65535 * linearToSrgb(value));
    }
  }
  return { ...shot, data };
}
