import type { VerdictState } from '@zesty-tile/core';

/** A sign for each state, so that colour never speaks alone. */
export const SIGN: Record<VerdictState, string> = { fine: '✓', look: '▲', wrong: '✕' };
export const STATE_COLOUR: Record<VerdictState, string> = {
  fine: 'var(--fine)',
  look: 'var(--look)',
  wrong: 'var(--wrong)',
};

/** A verdict's sign and words in its colour. */
export function VerdictWords({ state, words }: { state: VerdictState; words: string }) {
  return (
    <span style={{ color: STATE_COLOUR[state], fontWeight: state === 'fine' ? 500 : 600 }}>
      {SIGN[state]} {words}
    </span>
  );
}
