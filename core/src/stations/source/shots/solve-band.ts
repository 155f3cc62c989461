import { LUMINANCE } from '../../../colour/luminance-of.ts';
import type { Band } from '../../../raster/band.ts';
import { task } from '../../../team/task.ts';
import { PAUSE_ROWS } from '../../../work/steps.ts';
import type { Homography } from './homography.ts';
import { lightsAt, type ShotLights } from './lights-at.ts';
import { PixelSolver } from './solve-pixel.ts';
import { Subsets } from './subsets.ts';

/** Some rows of a shot, linear. */
export interface ShotRows {
  planes: Float32Array[];
  /** The row of the shot that they begin with. */
  from: number;
  /** Sides of the whole shot. */
  width: number;
  height: number;
  /** Where it shows what the first shot shows; null where it is in the same place. */
  homography: Homography | null;
  /** From this value on a channel is clipped. */
  ceiling: number;
}

export interface Solving {
  shots: ShotRows[];
  lights: ShotLights;
  /** Sides of the first shot. */
  width: number;
  height: number;
  /** The row of the picture with which the bands begin. */
  offset: number;
}

/** Red, green, blue; three of the normal; the residual; how many shots were kept. */
export const SOLVED_PLANES = 8;

/** Pixels of a row that share their lights, where a lamp is near. */
const BLOCK = 4;
const [RED, GREEN, BLUE] = LUMINANCE;
/** Normals lean no farther than this. */
const LEAST_UP = 0.05;

/** Cubic weights between two points (Keys 1981). */
function weigh(t: number, to: Float64Array): void {
  const [square, cube] = [t * t, t * t * t];
  to[0] = -0.5 * t + square - 0.5 * cube;
  to[1] = 1 - 2.5 * square + 1.5 * cube;
  to[2] = 0.5 * t + 2 * square - 1.5 * cube;
  to[3] = -0.5 * square + 0.5 * cube;
}

const across = new Float64Array(4);
const down = new Float64Array(4);

/** One row of the picture as a shot shows it: three values a pixel; below 0 where it is clipped or outside. */
function sampleRow(shot: ShotRows, y: number, width: number, height: number, into: Float64Array): void {
  const { planes, from, homography, ceiling } = shot;
  const [r, g, b] = planes;
  if (!homography) {
    for (let x = 0, i = (y - from) * width; x < width; x++, i++) {
      const isUsable = r[i] < ceiling && g[i] < ceiling && b[i] < ceiling;
      into[3 * x] = isUsable ? r[i] : -1;
      into[3 * x + 1] = g[i];
      into[3 * x + 2] = b[i];
    }
    return;
  }
  const [a0, a1, a2, b0, b1, b2, c0, c1] = homography;
  const longer = Math.max(width, height);
  const own = Math.max(shot.width, shot.height);
  const v = (y + 0.5 - height / 2) / longer;
  for (let x = 0; x < width; x++) {
    const u = (x + 0.5 - width / 2) / longer;
    const w = c0 * u + c1 * v + 1;
    const px = ((a0 * u + a1 * v + a2) / w) * own + shot.width / 2 - 0.5;
    const py = ((b0 * u + b1 * v + b2) / w) * own + shot.height / 2 - 0.5;
    into[3 * x] = -1;
    if (!(px >= 0 && py >= 0 && px <= shot.width - 1 && py <= shot.height - 1)) continue;
    const [i, j] = [Math.min(shot.width - 2, Math.floor(px)), Math.min(shot.height - 2, Math.floor(py))];
    weigh(px - i, across);
    weigh(py - j, down);
    let [red, green, blue, highest] = [0, 0, 0, 0];
    for (let n = 0; n < 4; n++) {
      const row = Math.min(shot.height - 1, Math.max(0, j + n - 1)) - from;
      for (let m = 0; m < 4; m++) {
        const at = row * shot.width + Math.min(shot.width - 1, Math.max(0, i + m - 1));
        const weight = across[m] * down[n];
        red += weight * r[at];
        green += weight * g[at];
        blue += weight * b[at];
        if (n > 0 && n < 3 && m > 0 && m < 3) highest = Math.max(highest, r[at], g[at], b[at]);
      }
    }
    if (highest >= ceiling) continue;
    into[3 * x] = Math.max(0, red);
    into[3 * x + 1] = Math.max(0, green);
    into[3 * x + 2] = Math.max(0, blue);
  }
}

/** Rows of the shots as the picture shows them, and what is made of one pixel after another. */
class Row {
  readonly #values: Float64Array;
  readonly #rows: Float64Array[];
  readonly #solver: PixelSolver;
  readonly #ambient: number;
  readonly #into: Float32Array[];

  constructor(shots: readonly ShotRows[], width: number, ambient: number, into: Float32Array[]) {
    this.#rows = shots.map(() => new Float64Array(3 * width));
    this.#values = new Float64Array(shots.length);
    this.#solver = new PixelSolver(ambient, shots.length);
    this.#ambient = ambient;
    this.#into = into;
  }

  /** Takes the next row of all shots. */
  take(shots: readonly ShotRows[], y: number, width: number, height: number): void {
    for (const [k, shot] of shots.entries()) sampleRow(shot, y, width, height, this.#rows[k]);
  }

  /** Solves the pixel `x` of the row, which is `i` of the picture. */
  solve(x: number, i: number, subsets: Subsets): void {
    let usable = 0;
    for (let k = 0; k < this.#rows.length; k++) {
      const row = this.#rows[k];
      if (row[3 * x] < 0) continue;
      usable |= 1 << k;
      this.#values[k] = RED * row[3 * x] + GREEN * row[3 * x + 1] + BLUE * row[3 * x + 2];
    }
    if (this.#solver.solve(this.#values, usable, subsets)) this.#put(x, i, usable, subsets);
    else this.#leave(x, i, usable, subsets);
  }

  /** What three shots do not show is as the brightest shows it, and upright. */
  #leave(x: number, i: number, usable: number, subsets: Subsets): void {
    const [red, green, blue, nx, ny, nz, residual, kept] = this.#into;
    let brightest = 0;
    let most = -1;
    for (let k = 0; k < this.#rows.length; k++) {
      const value = usable & (1 << k) ? this.#values[k] : 0;
      if (value > most) {
        brightest = k;
        most = value;
      }
    }
    const row = this.#rows[brightest];
    const strength = Math.hypot(...subsets.lights[brightest]) || 1;
    red[i] = Math.max(0, row[3 * x]) / strength;
    green[i] = Math.max(0, row[3 * x + 1]) / strength;
    blue[i] = Math.max(0, row[3 * x + 2]) / strength;
    nx[i] = 0.5;
    ny[i] = 0.5;
    nz[i] = 1;
    residual[i] = 1;
    kept[i] = 0;
  }

  #put(x: number, i: number, usable: number, subsets: Subsets): void {
    const [red, green, blue, nx, ny, nz, residual, kept] = this.#into;
    const { out } = this.#solver;
    const albedo = Math.sqrt(out.x * out.x + out.y * out.y + out.z * out.z);
    let sumR = 0;
    let sumG = 0;
    let sumB = 0;
    let squares = 0;
    let misses = 0;
    let seen = 0;
    let left = 0;
    for (let k = 0; k < this.#rows.length; k++) {
      if (!(usable & (1 << k))) continue;
      const light = subsets.lights[k];
      const facing = light[0] * out.x + light[1] * out.y + light[2] * out.z;
      const share = (albedo > 0 ? Math.max(0, facing) / albedo : 0) + this.#ambient;
      misses += (this.#values[k] - share * albedo) ** 2;
      seen++;
      if (!(out.kept & (1 << k))) continue;
      left++;
      const row = this.#rows[k];
      sumR += row[3 * x] * share;
      sumG += row[3 * x + 1] * share;
      sumB += row[3 * x + 2] * share;
      squares += share * share;
    }
    const scale = squares > 0 ? 1 / squares : 0;
    red[i] = sumR * scale;
    green[i] = sumG * scale;
    blue[i] = sumB * scale;
    const up = albedo > 0 ? Math.max(out.z, LEAST_UP * albedo) : 1;
    const length = Math.sqrt(out.x * out.x + out.y * out.y + up * up);
    nx[i] = 0.5 + (0.5 * out.x) / length;
    ny[i] = 0.5 + (0.5 * out.y) / length;
    nz[i] = 0.5 + (0.5 * up) / length;
    residual[i] = albedo > 0 ? Math.sqrt(misses / seen) / albedo : 0;
    kept[i] = left;
  }
}

/** Rows of the picture that a band of several shots comes to, in their place in `into`: see `SOLVED_PLANES`. */
export const solveBand = task(
  'solveShots',
  async (
    checkpoint,
    { shots, lights, width, height, offset }: Solving,
    into: Float32Array[],
    band: Band,
  ): Promise<void> => {
    const row = new Row(shots, width, lights.ambient, into);
    const longer = Math.max(width, height);
    let subsets = new Subsets(lights.vectors);
    for (let y = offset + band.from; y < offset + band.to; y++) {
      if (y % PAUSE_ROWS === 0) await checkpoint(0);
      row.take(shots, y, width, height);
      for (let x = 0; x < width; x++) {
        if (lights.distance > 0 && x % BLOCK === 0) {
          const u = (x + BLOCK / 2 - width / 2) / longer;
          subsets = new Subsets(lightsAt(lights, u, (y + 0.5 - height / 2) / longer));
        }
        row.solve(x, y * width + x, subsets);
      }
    }
  },
);
