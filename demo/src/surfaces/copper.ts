import { cells, fractal, noise, smooth } from '../noise.ts';
import { emptyScene, fillScene, type Pose, type Scene } from '../scene.ts';

const HAMMER = 38;

/** Verdigris copper sheet: hammered, brown where it is old, bare where hands rub it, green crust in the hollows. */
export function copper(width: number, height: number, mmPerPixel: number, pose: Pose): Scene {
  return fillScene(emptyScene(width, height, mmPerPixel), pose, (u, v, out) => {
    const mark = cells(u / HAMMER, v / HAMMER, 210);
    // Each blow leaves a shallow dish; its rim stands out where two meet.
    const dish = smooth(0, 0.75, mark.first);
    const rim = 1 - smooth(0.02, 0.2, mark.second - mark.first);
    const broad = fractal(u / 260, v / 260, 3, 211);
    // Rain runs down: green follows it, and sits in the dishes.
    const runs = fractal(u / 52, v / 330, 3, 219);
    const damp =
      0.7 * fractal(u / 130, v / 190, 5, 212) +
      0.45 * runs +
      0.14 * (0.5 - dish) +
      0.16 * fractal(u / 11, v / 11, 3, 213);
    const green = smooth(-0.08, 0.3, damp);
    const crust = green * (0.55 + 0.9 * fractal(u / 5, v / 5, 3, 214));
    const rubbed =
      smooth(-0.05, -0.42, damp - 0.16 * rim + 0.1 * fractal(u / 20, v / 20, 3, 220)) * (1 - green);
    const scratch = smooth(0.42, 0.6, noise(u / 46 + (0.4 * v) / 46, v / 1.6, 215)) * rubbed;
    out.h = 0.9 * broad + 0.8 * dish + 0.22 * rim + 0.5 * crust - 0.03 * scratch;
    const tarnish = 0.1 + 0.05 * fractal(u / 26, v / 26, 3, 216) - 0.02 * rim;
    const bare = 0.42 + 0.1 * fractal(u / 40, v / 40, 4, 217) + 0.07 * scratch;
    const salt = 0.24 + 0.13 * fractal(u / 7, v / 7, 4, 218) + 0.08 * fractal(u / 60, v / 60, 3, 221);
    const under = (old: number, clean: number) => old + (clean - old) * rubbed;
    out.r = under(1.35 * tarnish, 1.3 * bare) * (1 - green) + 0.52 * salt * green;
    out.g = under(0.8 * tarnish, 0.62 * bare) * (1 - green) + 1.02 * salt * green;
    out.b = under(0.55 * tarnish, 0.38 * bare) * (1 - green) + 0.8 * salt * green;
  });
}
