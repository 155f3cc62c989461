import { cells, fractal, noise, smooth } from '../noise.ts';
import { emptyScene, fillScene, type Pose, type Scene, surfacePoint } from '../scene.ts';

/** Salt-pan ripples: wind-made ripples of damp silt with salt dried on their crests. */
export function ripples(width: number, height: number, mmPerPixel: number, pose: Pose): Scene {
  return fillScene(emptyScene(width, height, mmPerPixel), pose, (u, v, out) => {
    const drift = 120 * fractal(u / 900, v / 700, 2, 91) + 26 * fractal(u / 260, v / 180, 2, 92);
    const spread = 1 + 0.1 * noise(u / 1100, v / 900, 93);
    const t = ((v + drift) / 118) * spread;
    const place = t - Math.floor(t);
    // Gentle on the windward side, steep in the lee; the crest is a soft edge.
    const lee = 0.68;
    const raw = place < lee ? place / lee : (1 - place) / (1 - lee);
    const crest = smooth(0, 1, raw) ** 1.25;
    const size = 1 + 0.3 * fractal(u / 330, v / 330, 2, 94);
    const cross = fractal(u / 75, v / 34, 3, 95);
    const grain = fractal(u / 4.2, v / 4.2, 3, 96);
    const plates = cells(
      (u + 9 * noise(u / 30, v / 30, 97)) / 34,
      (v + 9 * noise(u / 30, v / 30, 98)) / 34,
      99,
    );
    const salt = smooth(
      0.3,
      0.75,
      0.95 * crest + 0.5 * fractal(u / 46, v / 46, 4, 100) + 0.12 * grain - 0.06,
    );
    const rimmed = salt * (1 - smooth(0.02, 0.11, plates.second - plates.first));
    out.h =
      14 * size * crest +
      1.7 * cross +
      0.6 * grain +
      0.9 * salt * (0.4 + fractal(u / 5, v / 5, 2, 102)) +
      1.2 * rimmed;
    const wet = smooth(0.42, 0.05, crest + 0.3 * fractal(u / 130, v / 90, 3, 103));
    const silt = 0.3 * (1 + 0.14 * grain + 0.13 * cross) * (1 - 0.42 * wet);
    const white = 0.66 * (1 + 0.1 * grain + 0.06 * fractal(u / 9, v / 9, 2, 104)) + 0.06 * rimmed;
    const pink = 0.03 * smooth(0, 0.5, fractal(u / 240, v / 200, 3, 105));
    out.r = silt * 1.08 * (1 - salt) + white * salt + pink * (1 - salt);
    out.g = silt * 0.94 * (1 - salt) + white * 0.985 * salt;
    out.b = silt * 0.78 * (1 - salt) + white * 0.955 * salt + 0.4 * pink * (1 - salt);
  });
}

/** Side lengths in mm of the grey card that lies in a corner of the picture, and its reflectance. */
export const GREY_CARD = { across: 190, down: 130, reflectance: 0.18 };

/** Lays a grey card into the lower right corner of a scene. */
export function layCard(scene: Scene, pose: Pose): Scene {
  const centreU = (scene.width * scene.mmPerPixel) / 2 - GREY_CARD.across * 0.62;
  const centreV = (scene.height * scene.mmPerPixel) / 2 - GREY_CARD.down * 0.68;
  const c = Math.cos(0.12);
  const s = Math.sin(0.12);
  let top = 0;
  for (const h of scene.relief) if (h > top) top = h;
  for (let y = 0; y < scene.height; y++) {
    for (let x = 0; x < scene.width; x++) {
      const [u, v] = surfacePoint(scene, pose, x, y);
      const a = (u - centreU) * c + (v - centreV) * s;
      const b = -(u - centreU) * s + (v - centreV) * c;
      if (Math.abs(a) > GREY_CARD.across / 2 || Math.abs(b) > GREY_CARD.down / 2) continue;
      const i = y * scene.width + x;
      scene.relief[i] = top + 1;
      const border = Math.abs(a) > GREY_CARD.across / 2 - 7 || Math.abs(b) > GREY_CARD.down / 2 - 7;
      for (const plane of scene.albedo) plane[i] = border ? 0.78 : GREY_CARD.reflectance;
    }
  }
  return scene;
}
