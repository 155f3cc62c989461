import { figureOf } from './figures.ts';
import { proposedSettings } from './proposal.ts';
import type { SetupScene, SetupStep } from './scene.ts';

/** Amounts that are tried, the strongest first. */
const AMOUNTS = [1, 0.75, 0.5, 0.25, 0];
/** A lower amount must leave this much less drift (percentage points) to be preferred. */
const CLEARLY = 0.1;

async function driftWith(scene: SetupScene, amount: number): Promise<number> {
  const { verdicts } = await scene.evaluate('even', { even: { amount } }, true);
  return figureOf(verdicts.even, 'after');
}

/** Removes the photo's lighting as far as that lowers the drift, and never raises it. */
export const proposeEven: SetupStep = async (scene) => {
  // A tile that is complete is left alone.
  if (scene.recipe.stations.join.method === 'none') return [];
  if (await scene.isMeasured()) {
    const settings = proposedSettings(scene.recipe, 'even', { amount: 0 });
    return settings.length === 0
      ? []
      : [
          {
            id: 'even',
            station: 'even',
            title: 'Lighting already removed',
            reason: 'The albedo was measured from several shots and holds no light.',
            settings,
          },
        ];
  }
  let best = { amount: AMOUNTS[0], drift: await driftWith(scene, AMOUNTS[0]) };
  const kept = await driftWith(scene, 0);
  for (const amount of AMOUNTS.slice(1)) {
    const drift = amount === 0 ? kept : await driftWith(scene, amount);
    if (drift < best.drift - CLEARLY) best = { amount, drift };
  }
  const settings = proposedSettings(scene.recipe, 'even', { amount: best.amount });
  if (settings.length === 0) return [];
  const [from, to] = [kept, best.drift].map((drift) => `${drift.toFixed(1)} %`);
  return [
    {
      id: 'even',
      station: 'even',
      title: best.amount === 0 ? 'Lighting kept' : `Lighting removed by ${Math.round(100 * best.amount)} %`,
      reason:
        best.amount === 0
          ? `Removing it would not lower the drift of ${from}.`
          : `Drift falls from ${from} to ${to}; a higher amount leaves more.`,
      settings,
    },
  ];
};
