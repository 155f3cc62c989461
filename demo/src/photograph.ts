import { gaussian, linearToSrgb, MIRROR } from '@zesty-tile/core';
import { randomFrom } from './random.ts';
import type { Scene } from './scene.ts';

/** The light of a shot and what the camera adds. */
export interface Shot {
  /** Where the sun stands: clockwise from the picture's top, and its height. */
  sunDegrees: number;
  sunHeightDegrees: number;
  /** Strength of sun and sky. */
  sun: number;
  sky: number;
  /**
   * Log of the uneven light at (x, y) in −1..1 across and down, a channel each: the flaw to be removed.
   */
  unevenLog(x: number, y: number): [number, number, number];
  exposure: number;
  /** Deviation of sensor noise at mid grey, in linear light. */
  noise: number;
  seed: number;
}

/** A photo, with the truth about it. */
export interface Photo {
  width: number;
  height: number;
  /** Interleaved 8-bit sRGB. */
  samples: Uint8Array;
  /** Log of the uneven light, three planes. */
  lightLog: [Float32Array, Float32Array, Float32Array];
}

/** How much light falls on each place: the sun with its cast shadows, and the sky, dimmed in hollows. */
function lightOn(scene: Scene, shot: Shot): Float32Array {
  const { width, height, relief, mmPerPixel } = scene;
  const n = width * height;
  const around = [3, 9, 27].map((mm) =>
    gaussian(relief, width, height, Math.max(0.6, mm / mmPerPixel), MIRROR),
  );
  const turn = (shot.sunDegrees * Math.PI) / 180;
  const rise = (shot.sunHeightDegrees * Math.PI) / 180;
  const sx = Math.sin(turn) * Math.cos(rise);
  const sy = -Math.cos(turn) * Math.cos(rise);
  const sz = Math.sin(rise);
  const climb = Math.tan(rise) * mmPerPixel;
  const stepX = Math.sin(turn);
  const stepY = -Math.cos(turn);
  const shade: Float32Array = new Float32Array(n);
  const at = (x: number, y: number) => {
    const cx = x < 0 ? 0 : x >= width ? width - 1 : x;
    const cy = y < 0 ? 0 : y >= height ? height - 1 : y;
    return relief[cy * width + cx];
  };
  const reach = 44;
  const hiddenAt = (x: number, y: number, h: number) => {
    let hidden = 0;
    for (let t = 1.5; t < reach; t *= 1.22) {
      const over = at(Math.round(x + stepX * t), Math.round(y + stepY * t)) - h - climb * t;
      const soft = over / (0.12 * t * mmPerPixel + 0.25);
      if (soft > hidden) hidden = soft;
    }
    return hidden;
  };
  const openAt = (i: number, h: number) => {
    let open = 1;
    for (let k = 0; k < 3; k++) {
      const depth = (around[k][i] - h) / (3 * 3 ** k);
      if (depth > 0) open *= 1 / (1 + 1.6 * depth);
    }
    return open;
  };
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const h = relief[i];
      const p = -(at(x + 1, y) - at(x - 1, y)) / (2 * mmPerPixel);
      const q = -(at(x, y + 1) - at(x, y - 1)) / (2 * mmPerPixel);
      const inverse = 1 / Math.sqrt(p * p + q * q + 1);
      let lit = Math.max(0, (p * sx + q * sy + sz) * inverse);
      if (lit > 0) {
        lit *= 1 - Math.min(1, hiddenAt(x, y, h));
      }
      shade[i] = (shot.sun * lit) / sz + shot.sky * openAt(i, h) * (0.5 + 0.5 * inverse);
    }
  }
  return shade;
}

/** Takes a photo of a scene: sun with cast shadows, sky dimmed in hollows, uneven light, lens, noise. */
export function photograph(scene: Scene, shot: Shot): Photo {
  const { width, height } = scene;
  const n = width * height;
  const shade = lightOn(scene, shot);
  const random = randomFrom(shot.seed);
  const bell = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const lightLog = [0, 1, 2].map(() => new Float32Array(n)) as Photo['lightLog'];
  const samples = new Uint8Array(3 * n);
  const seen: Float32Array[] = [];
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const logs = shot.unevenLog((2 * (x + 0.5)) / width - 1, (2 * (y + 0.5)) / height - 1);
      for (let c = 0; c < 3; c++) lightLog[c][y * width + x] = logs[c];
    }
  }
  for (let c = 0; c < 3; c++) {
    const raw = new Float32Array(n);
    for (let i = 0; i < n; i++) {
      raw[i] = scene.albedo[c][i] * shade[i] * Math.exp(lightLog[c][i]) * shot.exposure;
    }
    seen.push(gaussian(raw, width, height, 0.65, MIRROR));
  }
  for (let i = 0; i < n; i++) {
    for (let c = 0; c < 3; c++) {
      const v = seen[c][i];
      const noisy = v + bell() * shot.noise * Math.sqrt(Math.max(0, v) * 3 + 0.05);
      samples[3 * i + c] = Math.round(255 * Math.min(1, Math.max(0, linearToSrgb(noisy))));
    }
  }
  return { width, height, samples, lightLog };
}
