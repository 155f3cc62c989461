import type { EvenOutput } from '../even/output.ts';
import type { SquareOutput } from '../square/output.ts';

/** What Join reads: the evened crop, and Square's for the picture as it was before. */
export interface JoinInput {
  even: Pick<EvenOutput, 'picture'>;
  square: SquareOutput;
  /** `before`: the picture as it was before Even will not be asked for. */
  omit?: readonly string[];
}
