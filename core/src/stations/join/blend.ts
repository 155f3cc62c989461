import type { Strip } from '../../kernels/cut-costs/strip.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import { smoothStep } from '../../lattice/smooth-step.ts';
import type { Edges } from '../../raster/edges.ts';
import { type GivenOf, task } from '../../team/task.ts';
import { ALONE, type Team } from '../../team/team.ts';
import { KEEP_OUT } from './cut.ts';

/** Draws a mask to the one or the other copy in columns where the gate says so, in place. */
function force(mask: Float32Array, gate: Float32Array, columns: readonly number[]): void {
  for (let row = 0; row < mask.length; row += gate.length) {
    for (const x of columns) {
      const g = gate[x];
      const value = mask[row + x];
      mask[row + x] = g >= 0 ? value + (1 - value) * g : value * (1 + g);
    }
  }
}

/** One channel of a blend. */
export const blendTask = task('blend', (_checkpoint, ...given: Parameters<typeof KERNELS.blendChannel>) =>
  KERNELS.blendChannel(...given),
);

/**
 * Multiband blend of the two copies inside the strip (Burt & Adelson 1983, on undecimated B3 bands):
 * each band is mixed by the cut's mask smoothed as the band is, forced pure at the strip's ends.
 * `mask` is 1 for `a`. Returns the blended planes; `checkpoint` is awaited between bands. No more than `most`
 * bands are taken apart: with few, coarse light changes hands as abruptly as fine detail, without ghosts.
 */
export async function blendBands(
  strip: Strip,
  mask: Float32Array,
  alongWraps: boolean,
  checkpoint: (done: number) => Promise<void>,
  most = Number.POSITIVE_INFINITY,
  team: Team = ALONE,
): Promise<Float32Array[]> {
  const { width, length } = strip;
  const edges: Edges = { x: 'mirror', y: alongWraps ? 'wrap' : 'mirror' };
  const levels = Math.max(1, Math.min(most, Math.floor(Math.log2(width / 8))));
  const gate = new Float32Array(width);
  for (let x = 0; x < width; x++) {
    const reach = width * KEEP_OUT;
    // +1 forces a, −1 forces b, 0 leaves the mask alone.
    gate[x] = 1 - smoothStep(0, 1, (x + 0.5) / reach) - (1 - smoothStep(0, 1, (width - x - 0.5) / reach));
  }
  const held = Array.from(gate.keys()).filter((x) => gate[x] !== 0);
  const masks: Float32Array[] = [];
  let smooth = mask;
  for (let level = 0; level <= levels; level++) {
    const forced = team.empty(mask.length);
    forced.set(smooth);
    force(forced, gate, held);
    masks.push(forced);
    if (level < levels) smooth = KERNELS.atrousSmooth(smooth, width, length, 2 ** level, edges);
    await checkpoint((0.3 * level) / levels);
  }
  const tasks = strip.a.map(
    (a, c): GivenOf<typeof blendTask> => [
      team.shared(a),
      team.shared(strip.b[c]),
      width,
      length,
      masks,
      edges,
    ],
  );
  const out: Float32Array[] = [];
  const take = (blended: Float32Array, c: number) => {
    // Rounding aside, the ends already are pure; make them so to the bit.
    for (let y = 0; y < length; y++) {
      blended[y * width] = strip.a[c][y * width];
      blended[(y + 1) * width - 1] = strip.b[c][(y + 1) * width - 1];
    }
    out.push(blended);
  };
  await team.each(blendTask, tasks, take, (done) => checkpoint(0.3 + 0.7 * done));
  return out;
}
