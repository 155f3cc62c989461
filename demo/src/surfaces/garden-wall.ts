import { fractal, noise, smooth } from '../noise.ts';
import { hash2 } from '../random.ts';
import { emptyScene, fillScene, type Pose, type Scene } from '../scene.ts';

/** One brick with its joint, in mm. */
export const BRICK = { across: 150, down: 60, joint: 8 };

/** Garden wall: small hand-made bricks in running bond, their joints of light lime mortar struck back. */
export function gardenWall(width: number, height: number, mmPerPixel: number, pose: Pose): Scene {
  return fillScene(emptyScene(width, height, mmPerPixel), pose, (u0, v0, out) => {
    const u = u0 + 1.2 * noise(u0 / 60, v0 / 60, 131);
    const v = v0 + 1.2 * noise(u0 / 60, v0 / 60, 132);
    const j = Math.floor(v / BRICK.down);
    const along = u / BRICK.across + 0.5 * (j & 1);
    const i = Math.floor(along);
    const x = (along - i - 0.5) * BRICK.across;
    const y = v - (j + 0.5) * BRICK.down;
    const round = 4;
    const qx = Math.abs(x) - (BRICK.across - BRICK.joint) / 2 + round;
    const qy = Math.abs(y) - (BRICK.down - BRICK.joint) / 2 + round;
    const outside = Math.hypot(Math.max(qx, 0), Math.max(qy, 0)) + Math.min(Math.max(qx, qy), 0) - round;
    const d =
      -outside - 1.6 * smooth(0.25, 0.6, fractal(u / 14, v / 14, 3, 134)) + 0.6 * noise(u / 4, v / 4, 135);
    const body = smooth(0, 3.5, d);
    const face = smooth(-0.6, 0.8, d);
    const skin = fractal(u / 30, v / 30, 4, 137 + Math.floor(hash2(i, j, 335) * 50));
    const grit = fractal(u / 2.2, v / 2.2, 2, 138);
    const tilt = ((hash2(i, j, 336) - 0.5) * x + (hash2(i, j, 337) - 0.5) * y) / 90;
    const clayH = 8 + 5 * (body - 1) + tilt + 0.5 * skin + 0.18 * grit;
    const limeH = 2.2 + 0.7 * fractal(u / 12, v / 12, 3, 141) + 0.25 * grit;
    out.h = face > 0.5 ? Math.max(clayH, limeH) : limeH;
    const fire = hash2(i, j, 338) + 0.3 * skin;
    const tone = 1 + 0.16 * skin + 0.08 * grit - 0.35 * smooth(0.55, 1.05, fire);
    const lime = 0.5 * (1 + 0.08 * fractal(u / 20, v / 20, 3, 142) + 0.06 * grit);
    out.r = face * 0.21 * tone + (1 - face) * lime;
    out.g = face * 0.098 * tone + (1 - face) * lime * 0.95;
    out.b = face * 0.062 * tone + (1 - face) * lime * 0.84;
  });
}
