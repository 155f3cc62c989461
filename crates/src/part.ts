import { hostname } from 'node:os';

const HOST = hostname().replace(/[^A-Za-z0-9.]/g, '-');
const PART = /^\.zesty-(.+)-(\d+)-[0-9a-f-]{36}\.part$/;

/** Name of unfinished work of this process, by which another process can tell whether it goes on. `id` is a UUID. */
export const partName = (id: string): string => `.zesty-${HOST}-${process.pid}-${id}.part`;

/** Whether a name is that of unfinished work, of whatever process. */
export const isPart = (name: string): boolean => PART.test(name);

const claimed = new Set<string>();

/** Marks unfinished work of this thread as under way; returns how to end that. */
export function claimPart(name: string): () => void {
  claimed.add(name);
  return () => claimed.delete(name);
}

/** Whether a name is that of work on this machine whose process has ended, or that this thread gave up. */
export function isLeftBehind(name: string): boolean {
  const found = PART.exec(name);
  if (!found || found[1] !== HOST || claimed.has(name)) return false;
  const pid = Number(found[2]);
  if (pid === process.pid) return true;
  try {
    process.kill(pid, 0);
    return false;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'ESRCH';
  }
}
