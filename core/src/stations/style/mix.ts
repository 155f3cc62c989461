import { blurring, type Field } from '../../filters/gaussian.ts';
import { smoothStep } from '../../lattice/smooth-step.ts';
import { PLANES } from '../../memory/pool.ts';
import { summing } from '../../planes/summing.ts';
import type { Sharing } from '../../team/context.ts';
import { type GivenOf, task } from '../../team/task.ts';
import { runSteps, type Steps } from '../../work/steps.ts';

/** What is broader than this share of the shorter edge stays the tile's own. */
export const BROAD = 1 / 8;
/** How often what is broad is taken from a change: once leaves a quarter of what is about as broad as that (a Gaussian times what it leaves). */
const TIMES = 3;
/** σ at which a change is split, as shares of the shorter edge, and how much of each part an amount takes: fine ones first. */
const SPLITS = [0.0016, 0.006, 0.022];
const RAMPS: [number, number][] = [
  [0, 0.5],
  [0.1, 0.75],
  [0.3, 0.9],
  [0.4, 1],
];

/** How much of each part of a change an amount takes, fine to broad. */
export const sharesOf = (amount: number): number[] =>
  RAMPS.map(([low, high]) => smoothStep(low, high, amount));

/**
 * A repainted plane mixed with the tile's own: what is broader than E/8 is the tile's; of the rest as much of each band as the
 * amount asks for. Into a new plane.
 */
export function* mixing(
  own: Float32Array,
  repainted: Float32Array,
  amount: number,
  { width, height, edges }: Field,
): Steps<Float32Array> {
  const edge = Math.min(width, height);
  const change = yield* summing([repainted, own], [1, -1]);
  for (let k = 0; k < TIMES; k++) {
    const broad = yield* blurring(change, width, height, BROAD * edge, edges);
    yield* summing([change, broad], [1, -1], {}, change);
    PLANES.give(broad);
  }
  const shares = sharesOf(amount);
  if (shares.every((share) => share === 1)) return yield* summing([own, change], [1, 1], {}, change);
  const out = yield* summing([own, change], [1, shares[0]]);
  let finer = change;
  let reached = 0;
  for (const [k, split] of SPLITS.entries()) {
    // What is coarser than this split takes the next share in place of the one before.
    const step = Math.sqrt((split * edge) ** 2 - reached ** 2);
    const coarser = yield* blurring(finer, width, height, step, edges);
    yield* summing([out, coarser], [1, shares[k + 1] - shares[k]], {}, out);
    PLANES.give(finer);
    finer = coarser;
    reached = split * edge;
  }
  PLANES.give(finer);
  return out;
}

/** One plane mixed, in its place. */
export const mixTask = task(
  'mix',
  async (
    checkpoint,
    own: Float32Array,
    repainted: Float32Array,
    amount: number,
    field: Field,
  ): Promise<void> => {
    const made = await runSteps(mixing(own, repainted, amount, field), checkpoint);
    repainted.set(made);
    PLANES.give(made);
  },
);

/** Repainted planes, which all of a team see, mixed with the tile's own as `mixing` has it, in their place. */
export async function mixed(
  own: readonly Float32Array[],
  repainted: readonly Float32Array[],
  amount: number,
  { width, height, edges }: Field,
  { team, checkpoint }: Sharing,
): Promise<void> {
  const field = { width, height, edges };
  const given = repainted.map((plane, c): GivenOf<typeof mixTask> => {
    return [team.shared(own[c]), plane, amount, field];
  });
  await team.each(mixTask, given, () => {}, checkpoint);
}
