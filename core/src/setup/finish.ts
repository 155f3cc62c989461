import { percentiles } from '../statistics/statistics.ts';
import { proposedSettings } from './proposal.ts';
import type { SetupScene, SetupStep } from './scene.ts';

/** Low and high places: below and above these percentiles of height. */
const LOW = 15;
const HIGH = 60;
/** How much smoother low places may be. */
const SLACK = 0.005;

/** By how much low places are rougher than high ones. */
async function lowOverHigh(scene: SetupScene, tone: number): Promise<number> {
  const { outputs } = await scene.evaluate('finish', { finish: { tone } });
  const { height } = outputs.relief!;
  const { roughness } = outputs.finish!;
  const [low, high] = percentiles(height, [LOW, HIGH]);
  const sums = { low: 0, high: 0 };
  const counts = { low: 0, high: 0 };
  for (let i = 0; i < height.length; i++) {
    const where = height[i] <= low ? 'low' : height[i] >= high ? 'high' : null;
    if (!where) continue;
    sums[where] += roughness[i];
    counts[where]++;
  }
  return sums.low / Math.max(1, counts.low) - sums.high / Math.max(1, counts.high);
}

/** Roughness that does not let the grit of hollows and joints shine more than what stands out. */
export const proposeFinish: SetupStep = async (scene) => {
  const { given } = scene.recipe.stations.source;
  if (given.roughness || given.gloss) return [];
  const { tone } = scene.recipe.stations.finish;
  const now = await lowOverHigh(scene, tone);
  if (now >= -SLACK) return [];
  const tried: { tone: number; over: number }[] = [];
  for (const other of [tone / 2, 0, -tone / 2, -tone]) {
    tried.push({ tone: Math.round(100 * other) / 100, over: await lowOverHigh(scene, other) });
    if (tried.at(-1)!.over >= -SLACK) break;
  }
  const best = tried.reduce((a, b) => (b.over > a.over ? b : a));
  if (best.over <= now) return [];
  return [
    {
      id: 'roughness',
      station: 'finish',
      title: `Roughness from tone ${best.tone.toFixed(2).replace('-', '−')}`,
      reason: `Low places were smoother than high ones by ${(-now).toFixed(2)}, so grit would shine.`,
      settings: proposedSettings(scene.recipe, 'finish', { tone: best.tone }),
    },
  ];
};
