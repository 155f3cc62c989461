import { USUAL_WORKERS } from './serve.ts';

/** How many threads make crates, by what is set. @throws Error in words where that is no number. */
export function workersOf(text: string | undefined): number {
  if (text === undefined || text === '') return USUAL_WORKERS;
  const count = Number(text);
  if (Number.isInteger(count) && count >= 0 && count <= 64) return count;
  throw new Error(`ZESTY_WORKERS is a whole number from 0 to 64, not “${text}”.`);
}
