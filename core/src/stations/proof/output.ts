import type { Repeat } from './repeats.ts';

export interface ProofOutput {
  /** Spots that will be seen repeating, strongest first. */
  repeats: Repeat[];
}
