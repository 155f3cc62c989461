import type { JoinOutput } from '../join/output.ts';
import type { ReliefOutput } from '../relief/output.ts';

/** What Finish reads: never Gauge, so that exposure moves no roughness. */
export interface FinishInput {
  join: JoinOutput;
  relief: ReliefOutput;
}
