import type { EvenOutput, SquareOutput } from '../types.ts';

/** What Join reads: the evened crop, and Square's for the picture as it was before. */
export interface JoinInput {
  even: Pick<EvenOutput, 'picture'>;
  square: SquareOutput;
  /** The picture as it was before Even will not be asked for. */
  withoutBefore?: boolean;
}
