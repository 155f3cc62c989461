import { type Triple, unit } from '../shade.ts';
import { directionOf, halvedPanorama, type Panorama } from './panorama.ts';

/** Roughnesses at which what is mirrored is blurred beforehand, in even steps; between them it is mixed. */
export const BLURRED_AT = [0.2, 0.4, 0.6, 0.8, 1] as const;
/** Width of each blurred panorama; the roughest need no more than a quarter, and are enlarged. */
export const BLURRED_WIDTH = 128;
const SAMPLES = 40;
/** From this roughness on a quarter of the width holds all there is. */
const SOFT = 0.5;

/** The panorama and its halves, down to 16 pixels. */
function halvesOf(panorama: Panorama): Panorama[] {
  const out = [panorama];
  while (out[out.length - 1].width > 16) out.push(halvedPanorama(out[out.length - 1]));
  return out;
}

/** Adds a panorama's value in a direction, between its pixels, to a sum. */
function addAt({ width, height, rgb }: Panorama, [x, y, z]: Triple, weight: number, sum: Float64Array): void {
  const u = (Math.atan2(z, x) / (2 * Math.PI) + 0.5) * width - 0.5;
  const v = Math.min(
    height - 1,
    Math.max(0, (Math.asin(Math.min(1, Math.max(-1, y))) / Math.PI + 0.5) * height - 0.5),
  );
  const [i, j] = [Math.floor(u), Math.min(height - 2, Math.floor(v))];
  const [s, t] = [u - i, v - j];
  const [left, right] = [(i + width) % width, (i + 1) % width];
  for (let c = 0; c < 3; c++) {
    const at = (column: number, row: number) => rgb[3 * (row * width + column) + c];
    const upper = at(left, j) + s * (at(right, j) - at(left, j));
    const lower = at(left, j + 1) + s * (at(right, j + 1) - at(left, j + 1));
    sum[c] += weight * (upper + t * (lower - upper));
  }
}

interface Ray {
  /** In the frame of the mirrored direction, z along it. */
  at: Triple;
  weight: number;
  half: number;
}

/** Rays that a surface of a roughness mirrors towards its own normal, and the half of the panorama as wide as each stands for. */
function raysOf(roughness: number, widest: number): Ray[] {
  const a2 = roughness ** 4;
  const out: Ray[] = [];
  for (let k = 0; k < SAMPLES; k++) {
    const u = (k + 0.5) / SAMPLES;
    const turn = 2 * Math.PI * ((k * 0.618033988749895) % 1);
    const cos = Math.sqrt((1 - u) / (1 + (a2 - 1) * u));
    const sin = Math.sqrt(1 - cos * cos);
    // The look is mirrored at a facet that is tilted so.
    const at: Triple = [2 * cos * sin * Math.cos(turn), 2 * cos * sin * Math.sin(turn), 2 * cos * cos - 1];
    if (at[2] <= 0) continue;
    const density = a2 / (Math.PI * (cos * cos * (a2 - 1) + 1) ** 2) / 4;
    const angle = 1 / (SAMPLES * density);
    const pixel = (2 * Math.PI * Math.PI) / (widest * (widest / 2));
    out.push({ at, weight: at[2], half: Math.max(0, 0.5 * Math.log2(angle / pixel) + 0.5) });
  }
  return out;
}

/** Each direction's mean over the rays that a surface of a roughness mirrors. */
function filtered(panorama: Panorama, roughness: number, width: number): Panorama {
  let base = panorama;
  while (base.width > 512) base = halvedPanorama(base);
  const halves = halvesOf(base);
  const rays = raysOf(roughness, base.width).map((ray) => ({
    ...ray,
    from: halves[Math.min(halves.length - 1, Math.round(ray.half))],
  }));
  const whole = rays.reduce((sum, { weight }) => sum + weight, 0);
  const sides = { width, height: width / 2 };
  const rgb = new Float32Array(3 * width * sides.height);
  const sum = new Float64Array(3);
  for (let y = 0, to = 0; y < sides.height; y++) {
    for (let x = 0; x < width; x++, to += 3) {
      const [nx, ny, nz] = directionOf(x, y, sides);
      const across = Math.abs(ny) < 0.99 ? unit([nz, 0, -nx]) : ([1, 0, 0] as Triple);
      const up: Triple = [
        ny * across[2] - nz * across[1],
        nz * across[0] - nx * across[2],
        nx * across[1] - ny * across[0],
      ];
      sum.fill(0);
      for (const { at, weight, from } of rays) {
        const towards: Triple = [
          across[0] * at[0] + up[0] * at[1] + nx * at[2],
          across[1] * at[0] + up[1] * at[1] + ny * at[2],
          across[2] * at[0] + up[2] * at[1] + nz * at[2],
        ];
        addAt(from, towards, weight / whole, sum);
      }
      rgb.set(sum, to);
    }
  }
  return { ...sides, rgb };
}

/** The same wider, smooth between its pixels. */
function enlarged(panorama: Panorama, width: number): Panorama {
  const sides = { width, height: width / 2 };
  const rgb = new Float32Array(3 * width * sides.height);
  const sum = new Float64Array(3);
  for (let y = 0, to = 0; y < sides.height; y++) {
    for (let x = 0; x < width; x++, to += 3) {
      sum.fill(0);
      addAt(panorama, directionOf(x, y, sides), 1, sum);
      rgb.set(sum, to);
    }
  }
  return { ...sides, rgb };
}

/**
 * What a rough surface mirrors of a panorama, for each direction at a roughness: the panorama filtered by the lobe of the
 * GGX distribution seen along its normal (Karis 2013), each ray taken from a half of the panorama as wide as it stands for
 * (Křivánek & Colbert 2008).
 */
export function blurredPanorama(panorama: Panorama, roughness: number, width = BLURRED_WIDTH): Panorama {
  return roughness < SOFT
    ? filtered(panorama, roughness, width)
    : enlarged(filtered(panorama, roughness, width / 4), width);
}

/** What a surface of a roughness mirrors in a direction, from panoramas that were blurred for each of `BLURRED_AT`. Linear RGB. */
export function mirroredAt(blurred: readonly Panorama[], towards: Triple, roughness: number): Triple {
  const level = Math.min(blurred.length - 1, Math.max(0, roughness * blurred.length - 1));
  const lower = Math.min(blurred.length - 2, Math.floor(level));
  const sum = new Float64Array(3);
  addAt(blurred[lower], towards, 1 - (level - lower), sum);
  addAt(blurred[lower + 1], towards, level - lower, sum);
  return [sum[0], sum[1], sum[2]];
}
