import type { CrateState, crateJob } from '../db/schema.ts';

export type CrateJob = typeof crateJob.$inferSelect;

const ENDED: CrateState[] = ['done', 'failed', 'stopped', 'interrupted'];

/** States of a crate that has not ended. */
export const GOING: CrateState[] = ['waiting', 'working'];

export const hasEnded = (job: CrateJob): boolean => ENDED.includes(job.state);
