import { open, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { problemOf } from '../problems.ts';

/** Room that the database needs to open, in bytes. */
const RESERVED = 4 * 2 ** 20;

const pathOf = (folder: string) => join(folder, 'reserve');

/** Keeps room on the disk of a data folder, by a file of that size. Does nothing where the disk is full. */
async function keepReserve(folder: string): Promise<void> {
  const path = pathOf(folder);
  const about = await stat(path).catch(() => null);
  if (about?.size === RESERVED) return;
  try {
    const handle = await open(path, 'w');
    try {
      await handle.writeFile(Buffer.alloc(RESERVED, 0x5a));
    } finally {
      await handle.close();
    }
  } catch {
    await rm(path, { force: true });
  }
}

/**
 * Opens something that needs a little room on the disk. Where the disk is full the reserve is given up for it, so that a
 * server starts and everything that was saved can be read.
 */
export async function withReserve<T>(folder: string, openIt: () => Promise<T>): Promise<T> {
  let opened: T;
  try {
    opened = await openIt();
  } catch (error) {
    if (problemOf(error)?.code !== 'disk_full') throw error;
    await rm(pathOf(folder), { force: true });
    return openIt();
  }
  await keepReserve(folder);
  return opened;
}
