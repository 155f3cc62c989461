import type { Triple } from '../shade.ts';

/**
 * Radiance all round as a picture twice as wide as high: three linear values a pixel, row 0 straight down, columns clockwise
 * seen from above starting at −x, as WebGL looks equirectangular pictures up.
 */
export interface Panorama {
  width: number;
  height: number;
  rgb: Float32Array;
}

/** The direction of the middle of a pixel; y up, z towards the viewer. */
export function directionOf(x: number, y: number, { width, height }: Omit<Panorama, 'rgb'>): Triple {
  const rise = ((y + 0.5) / height - 0.5) * Math.PI;
  const turn = ((x + 0.5) / width - 0.5) * 2 * Math.PI;
  const flat = Math.cos(rise);
  return [flat * Math.cos(turn), Math.sin(rise), flat * Math.sin(turn)];
}

/** Share of the whole sphere's solid angle, 4π, that a pixel of a row takes. */
export function solidAngleOf(y: number, { width, height }: Omit<Panorama, 'rgb'>): number {
  const edge = (k: number) => Math.sin((k / height - 0.5) * Math.PI);
  return ((edge(y + 1) - edge(y)) * 2 * Math.PI) / width;
}

/** Draws a picture of what is seen all round. */
export function panoramaOf(radiance: (towards: Triple) => Triple, width: number): Panorama {
  const sides = { width, height: width / 2 };
  const rgb = new Float32Array(3 * width * sides.height);
  for (let y = 0, at = 0; y < sides.height; y++) {
    for (let x = 0; x < width; x++, at += 3) rgb.set(radiance(directionOf(x, y, sides)), at);
  }
  return { ...sides, rgb };
}

/** The same at half the size, each pixel the mean of four; both sides must be even. */
export function halvedPanorama({ width, height, rgb }: Panorama): Panorama {
  const out = new Float32Array((3 * width * height) / 4);
  for (let y = 0, to = 0; y < height; y += 2) {
    for (let x = 0; x < width; x += 2) {
      for (let c = 0; c < 3; c++, to++) {
        const at = 3 * (y * width + x) + c;
        out[to] = (rgb[at] + rgb[at + 3] + rgb[at + 3 * width] + rgb[at + 3 * width + 3]) / 4;
      }
    }
  }
  return { width: width / 2, height: height / 2, rgb: out };
}
