import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';

/** The message to a helper that it is to release memory. */
export const COLLECT = 'collect';

let collect: (() => void) | null = null;

/**
 * Has the memory of planes that nobody holds any more released now. Left to itself the collector goes by its own small objects, and
 * lets more than a gigabyte of planes wait.
 */
export function collectNow(): void {
  if (!collect) {
    setFlagsFromString('--expose-gc');
    collect = runInNewContext('gc') as () => void;
  }
  collect();
}
