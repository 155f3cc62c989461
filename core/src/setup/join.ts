import { JOIN_PROPOSALS } from '../stations/join/inquiries.ts';
import { FINE } from '../stations/join/propose.ts';
import { figureOf } from './figures.ts';
import { proposedSettings } from './proposal.ts';
import type { SetupStep } from './scene.ts';

/** The best joining method of all that are tried, where it is better than a cut. */
export const proposeJoin: SetupStep = async (scene) => {
  const { recipe, source, signal } = scene;
  if (recipe.stations.join.method === 'none') return [];
  const { verdicts } = await scene.evaluate('join', {}, true);
  // Nothing is clearly better than what cannot be seen.
  if (verdicts.join?.state === 'fine' && figureOf(verdicts.join, 'unlike') < FINE) return [];
  const { best, reason } = await scene.engine.answer(JOIN_PROPOSALS, { recipe, source, signal }, null);
  const { method, blend } = best;
  const settings = proposedSettings(recipe, 'join', { method, ...(method === 'cut' ? { blend } : {}) });
  if (settings.length === 0) return [];
  return [{ id: 'join', station: 'join', title: `Join: ${METHOD_WORDS[method]}`, reason, settings }];
};

const METHOD_WORDS = { cut: 'Cut', meet: 'Meet', mix: 'Mix', spread: 'Spread', none: 'None' };
