import { type Verdict, type VerdictState, worse } from '@zesty-tile/core';

/** The worst state among verdicts, and in how many words to say it. */
export function worstOf(verdicts: Record<string, Verdict>): { state: VerdictState; words: string } {
  const all = Object.values(verdicts);
  const state = all.reduce<VerdictState>((worst, verdict) => worse(worst, verdict.state), 'fine');
  if (state === 'fine') return { state, words: 'fine' };
  const such = all.filter((verdict) => verdict.state === state);
  if (such.length === 1) return { state, words: such[0].brief };
  return { state, words: `${such.length} ${state === 'look' ? 'to look at' : 'wrong'}` };
}
