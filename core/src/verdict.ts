/** How a station finds its own result. */
export type VerdictState = 'fine' | 'look' | 'wrong';

/** One measured figure of a verdict. `limit` is what it is compared with, where there is one. */
export interface Figure {
  id: string;
  label: string;
  value: number;
  unit: string;
  limit?: number;
  /** Digits behind the point, where the usual ones would not tell it. */
  digits?: number;
}

/** What a station measured about its own result: always from the pixels, never from the settings. */
export interface Verdict {
  state: VerdictState;
  /** A few words for the Course. */
  brief: string;
  /** One sentence: what was found. */
  sentence: string;
  /** What to do about it; empty when nothing is needed. */
  advice: string;
  figures: Figure[];
}

const ORDER: VerdictState[] = ['fine', 'look', 'wrong'];

/** The worse of two states. */
export function worse(a: VerdictState, b: VerdictState): VerdictState {
  return ORDER.indexOf(a) >= ORDER.indexOf(b) ? a : b;
}
