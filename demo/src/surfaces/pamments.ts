import { cells, fractal, noise, smooth } from '../noise.ts';
import { hash2 } from '../random.ts';
import { emptyScene, fillScene, type Pose, type Scene } from '../scene.ts';

/** One paving square with its joint, in mm. */
export const PAMMENT_PERIOD = 310;
const JOINT = 13;

/** Terrace pamments: square hand-made clay paving, each its own colour and tilt, sandy lime joints. */
export function pamments(width: number, height: number, mmPerPixel: number, pose: Pose): Scene {
  return fillScene(emptyScene(width, height, mmPerPixel), pose, (u0, v0, out) => {
    const u = u0 + 1.6 * noise(u0 / 90, v0 / 90, 31);
    const v = v0 + 1.6 * noise(u0 / 90, v0 / 90, 32);
    const i = Math.floor(u / PAMMENT_PERIOD);
    const j = Math.floor(v / PAMMENT_PERIOD);
    const x = u - (i + 0.5) * PAMMENT_PERIOD + 2.6 * (hash2(i, j, 330) - 0.5);
    const y = v - (j + 0.5) * PAMMENT_PERIOD + 2.6 * (hash2(i, j, 331) - 0.5);
    const half = (PAMMENT_PERIOD - JOINT) / 2 - 2.2 * hash2(i, j, 332);
    // Distance inside the square, its corner rounded, its edge worn and chipped.
    const round = 9 + 9 * hash2(i, j, 333);
    const qx = Math.abs(x) - half + round;
    const qy = Math.abs(y) - half + round;
    const outside = Math.hypot(Math.max(qx, 0), Math.max(qy, 0)) + Math.min(Math.max(qx, qy), 0) - round;
    const chip = 4.2 * smooth(0.2, 0.55, fractal(u / 26, v / 26, 3, 34));
    const d = -outside - chip * 0.8 + 0.7 * noise(u / 5, v / 5, 35);
    const body = smooth(0, 7, d);
    const face = smooth(-1.2, 1.6, d);
    const drag = noise(
      (x * Math.cos(6 * hash2(i, j, 334)) + y * Math.sin(6 * hash2(i, j, 334))) / 3.5,
      (y - x) / 90,
      36,
    );
    const skin = fractal(u / 42, v / 42, 4, 37 + Math.floor(hash2(i, j, 335) * 50));
    const grit = fractal(u / 2.6, v / 2.6, 2, 38);
    const hole = smooth(0.5, 0.62, fractal(u / 6.5, v / 6.5, 2, 39));
    const tilt = ((hash2(i, j, 336) - 0.5) * x + (hash2(i, j, 337) - 0.5) * y) / 110;
    const dish = -1.3 * (1 - (x * x + y * y) / (half * half));
    const clayH = 7 + 6.5 * (body - 1) + tilt + dish + 1.1 * skin + 0.16 * drag + 0.2 * grit - 1.3 * hole;
    const pebble = cells(u / 4.2, v / 4.2, 40);
    const sandH = 1.2 + 1.1 * fractal(u / 18, v / 18, 3, 41) + 0.9 * (0.5 - pebble.first);
    out.h = face > 0.5 ? Math.max(clayH, sandH) : sandH;
    // Clay from orange to plum, fired unevenly: paler heart, darker kissed edges.
    const fire = hash2(i, j, 338) + 0.35 * fractal(u / 150, v / 150, 3, 42) + 0.25 * skin;
    const dark = smooth(0.55, 1.1, fire);
    const pale = smooth(0.5, 0.05, fire) * 0.8;
    const rim = 1 - smooth(4, 42, d + 9 * skin);
    const tone = 1 + 0.17 * skin + 0.07 * grit + 0.05 * drag - 0.25 * hole - 0.12 * rim * hash2(i, j, 339);
    let r = (0.345 - 0.15 * dark + 0.1 * pale) * tone;
    let g = (0.152 - 0.062 * dark + 0.075 * pale) * tone;
    let b = (0.087 - 0.026 * dark + 0.048 * pale) * tone;
    // Lime bloom creeping in from the joints, foot-worn dust on the face.
    const bloom = 0.26 * smooth(0.1, 0.6, fractal(u / 55, v / 55, 4, 43) + 0.55 * (1 - smooth(0, 26, d)));
    const dust = 0.1 * smooth(-0.2, 0.6, fractal(u / 95, v / 95, 3, 44));
    r += (0.5 - r) * bloom + (0.36 - r) * dust;
    g += (0.44 - g) * bloom + (0.28 - g) * dust;
    b += (0.35 - b) * bloom + (0.2 - b) * dust;
    const grain = 0.75 + 0.5 * pebble.id;
    const lime =
      0.36 *
      grain *
      (1 + 0.25 * fractal(u / 12, v / 12, 3, 45)) *
      (0.82 + 0.18 * smooth(0.1, 0.5, pebble.second - pebble.first));
    const moss =
      0.75 *
      smooth(0.16, 0.42, fractal(u / 120, v / 120, 3, 46)) *
      smooth(0.3, -0.3, fractal(u / 7, v / 7, 2, 47));
    out.r = r * face + (lime * 1.04 * (1 - moss) + 0.085 * moss) * (1 - face);
    out.g = g * face + (lime * 0.93 * (1 - moss) + 0.1 * moss) * (1 - face);
    out.b = b * face + (lime * 0.76 * (1 - moss) + 0.04 * moss) * (1 - face);
  });
}
