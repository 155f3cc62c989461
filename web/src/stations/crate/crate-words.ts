/** A crate's state in words. */
export const CRATE_STATE_WORDS: Record<string, string> = {
  waiting: 'waiting',
  working: 'being made',
  done: 'ready',
  failed: 'failed',
  stopped: 'stopped',
  interrupted: 'interrupted, run it again',
};
