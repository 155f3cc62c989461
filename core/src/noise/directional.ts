import { drawn, drawnShare } from '../lattice/draw.ts';
import { cellOf, type Lattice, latticeOf } from '../lattice/lattice.ts';

/** Kernels in each cell. */
const EACH = 3;
/** Width of a kernel in cells: what is further than two cells away is not seen. */
const NARROW = 1.2;
/** Samples of the slow part in a cell; it is smooth, so that it is interpolated between them. */
const SAMPLES = 6;

/** The slow part of the sum of kernels: a complex value on a grid over the tile that wraps. */
function slowPart(cells: Lattice, fx: number, fy: number, seed: number) {
  const [across, down] = [SAMPLES * cells.xu, SAMPLES * cells.yv];
  const re = new Float64Array(across * down);
  const im = new Float64Array(across * down);
  for (let cy = 0; cy < cells.yv; cy++) {
    for (let cx = 0; cx < cells.xu; cx++) {
      const cell = cellOf(cells, cx, cy);
      for (let k = 0; k < EACH; k++) {
        const own = EACH * cell + k;
        const x = cx + drawnShare(own, seed);
        const y = cy + drawnShare(own, seed + 0x11);
        const phase =
          2 * Math.PI * (drawnShare(own, seed + 0x22) - (fx * x) / cells.xu - (fy * y) / cells.yv);
        const [cos, sin] = [Math.cos(phase), Math.sin(phase)];
        for (let j = Math.ceil(SAMPLES * (y - 2)); j < SAMPLES * (y + 2); j++) {
          for (let i = Math.ceil(SAMPLES * (x - 2)); i < SAMPLES * (x + 2); i++) {
            const away = (i / SAMPLES - x) ** 2 + (j / SAMPLES - y) ** 2;
            const weight = Math.exp(-Math.PI * NARROW * away);
            const at = (((j % down) + down) % down) * across + (((i % across) + across) % across);
            re[at] += weight * cos;
            im[at] += weight * sin;
          }
        }
      }
    }
  }
  return { across, down, re, im };
}

/**
 * Waves of one direction and length that break and start again, −1..1 (phasor noise, Tricard et al. 2019): kernels at random
 * places of a grid that wraps, each of a random phase; the phase of their sum is read through a sine, so that every wave has
 * the same height. `wavesX`, `wavesY` are whole periods across and down the tile, `straight` about how many waves run on before
 * they break. A function of the tile's coordinates, 0..1.
 */
export function directionalNoise(
  wavesX: number,
  wavesY: number,
  straight: number,
  seed: number,
): (u: number, v: number) => number {
  const waves = Math.hypot(wavesX, wavesY);
  const count = Math.max(2, Math.min(64, Math.round(waves / Math.max(1, straight))));
  const cells = latticeOf(count, 0, 0, count);
  const { across, down, re, im } = slowPart(cells, wavesX, wavesY, drawn(seed, 0x77));
  return (u, v) => {
    const x = u * across;
    const y = v * down;
    const x0 = Math.floor(x);
    const y0 = Math.floor(y);
    const [dx, dy] = [x - x0, y - y0];
    const left = ((x0 % across) + across) % across;
    const right = (left + 1) % across;
    const top = (((y0 % down) + down) % down) * across;
    const low = (top + across) % (across * down);
    const between = (plane: Float64Array) => {
      const above = plane[top + left] + dx * (plane[top + right] - plane[top + left]);
      const below = plane[low + left] + dx * (plane[low + right] - plane[low + left]);
      return above + dy * (below - above);
    };
    return Math.sin(2 * Math.PI * (wavesX * u + wavesY * v) + Math.atan2(between(im), between(re)));
  };
}
