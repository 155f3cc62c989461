import type { ReliefOutput } from '../relief/output.ts';
import type { StyleOutput } from '../style/output.ts';

/** What Finish reads: never Gauge, so that exposure moves no roughness. */
export interface FinishInput {
  style: StyleOutput;
  relief: ReliefOutput;
}
