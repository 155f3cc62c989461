import { Problem } from '@zesty-tile/core';

/** The most event streams of one client, and in all. A page of crates has one for each that is being made. */
const MOST_EACH = 32;
const MOST = 256;

const open = new Map<string, number>();

/**
 * Counts an event stream of a client in; returns how to count it out.
 * @throws Problem `too_many_streams` where the client, or all together, have too many.
 */
export function enterStream(client: string): () => void {
  const count = open.get(client) ?? 0;
  const all = [...open.values()].reduce((sum, one) => sum + one, 0);
  if (count >= MOST_EACH || all >= MOST) {
    throw new Problem(
      'too_many_streams',
      'Too many pages follow crates at the same time.',
      'Close some of them and try again.',
    );
  }
  open.set(client, count + 1);
  let isOpen = true;
  return () => {
    if (!isOpen) return;
    isOpen = false;
    const left = (open.get(client) ?? 1) - 1;
    if (left > 0) open.set(client, left);
    else open.delete(client);
  };
}
