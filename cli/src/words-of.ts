import { Problem, Stopped } from '@zesty-tile/core';
import { FAILED, WRONG_CALL } from './exit-codes.ts';

/** Problems that no other call would have helped: the disk has the last word. */
const OF_THE_WORLD = [
  'disk_error',
  'disk_full',
  'in_use',
  'no_folder',
  'no_permission',
  'read_back',
  'read_only',
  'too_many_files',
  'too_slow',
];

/** What went wrong in one line, and the exit code for it. */
export function wordsOf(error: unknown): { words: string; code: number } {
  if (error instanceof Problem) {
    const code = OF_THE_WORLD.includes(error.code) ? FAILED : WRONG_CALL;
    return { words: `${error.message} ${error.hint}`, code };
  }
  if (error instanceof Stopped) return { words: 'Stopped; nothing was written.', code: FAILED };
  return {
    words: `The work failed: ${error instanceof Error ? error.message : String(error)}`,
    code: FAILED,
  };
}
