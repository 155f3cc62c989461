import { fractal, noise, smooth } from '../noise.ts';
import { hash2 } from '../random.ts';
import { emptyScene, fillScene, type Pose, type Scene } from '../scene.ts';

/** Distance from one strip of cane to the next, in mm; the weave repeats every four. */
export const CANE_STRIP = 13;
export const CANE_PERIOD = 4 * CANE_STRIP;

/** One strip seen along its length: `along` and `across` in mm, `over` the weave's rise −1..1. */
function strip(along: number, across: number, over: number, id: number, salt: number) {
  const half = (CANE_STRIP / 2) * (0.93 + 0.07 * hash2(id, salt, 80));
  const side = across + 0.5 * (hash2(id, salt, 81) - 0.5) + 0.45 * noise(along / 70, id * 3.7, 81 + salt);
  const x = side / half;
  if (Math.abs(x) >= 1) return null;
  const body = Math.sqrt(1 - x * x);
  const fibre = noise(along / 60 + 31 * hash2(id, salt, 82), side * 2.1 + 17 * id, 82 + salt);
  const fine = noise(along / 18 + 11 * hash2(id, salt, 83), side * 5.5 + 7 * id, 83 + salt);
  // A node now and then: a faint ring where the cane was jointed.
  const spacing = 150 + 90 * hash2(id, salt, 84);
  const place = along / spacing + hash2(id, salt, 85);
  const node = smooth(0.02, 0, Math.abs(place - Math.round(place)) - 0.004);
  const split = smooth(0.25, 0.6, fractal(along / 90, side / 2.2 + 5 * id, 2, 84 + salt));
  const h = 2.5 * over + 2.1 * body + 0.13 * fibre + 0.07 * fine + 0.55 * node - 0.5 * split;
  const tone =
    (0.92 + 0.34 * (hash2(id, salt, 86) - 0.5)) *
    (1 +
      0.12 * fibre +
      0.08 * fine -
      0.28 * node -
      0.3 * split +
      0.1 * fractal(along / 45, id * 9.1, 3, 85 + salt)) *
    (0.72 + 0.28 * body);
  return {
    h,
    tone,
    green: hash2(id, salt, 87),
    grey: smooth(0.15, 0.7, fractal(along / 110, id * 5.3, 3, 86 + salt)),
  };
}

/** Split-cane matting: flat split strips woven two over two. */
export function cane(width: number, height: number, mmPerPixel: number, pose: Pose): Scene {
  return fillScene(emptyScene(width, height, mmPerPixel), pose, (u, v, out) => {
    const i = Math.floor(u / CANE_STRIP);
    const j = Math.floor(v / CANE_STRIP);
    const phase = (2 * Math.PI) / CANE_PERIOD;
    // Two over two, each row moved on by one: a twill.
    const overV = Math.sin(phase * (v + (i - 0.5) * CANE_STRIP));
    const overU = -Math.sin(phase * (u + (j - 0.5) * CANE_STRIP));
    const upright = strip(v, u - (i + 0.5) * CANE_STRIP, overV, i, 1);
    const level = strip(u, v - (j + 0.5) * CANE_STRIP, overU, j, 2);
    const top = upright && level ? (upright.h > level.h ? upright : level) : (upright ?? level);
    if (!top) {
      out.h = -4;
      out.r = 0.09;
      out.g = 0.068;
      out.b = 0.042;
      return;
    }
    const buried = upright && level ? smooth(0, 2.2, Math.abs(upright.h - level.h)) : 1;
    const dirt = 0.78 + 0.22 * buried;
    const tone = top.tone * dirt * (1 - 0.12 * smooth(0, 0.6, fractal(u / 160, v / 160, 3, 87)));
    out.h = top.h;
    const grey = 0.3 * top.grey;
    const r = 0.47 - 0.05 * top.green;
    const g = 0.335;
    const b = 0.15 + 0.02 * top.green;
    out.r = tone * (r + (0.34 - r) * grey);
    out.g = tone * (g + (0.31 - g) * grey);
    out.b = tone * (b + (0.25 - b) * grey);
  });
}
