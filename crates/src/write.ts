import { randomUUID } from 'node:crypto';
import { open, rename, rm } from 'node:fs/promises';
import { dirname, join } from 'node:path';

/** Brings a folder's own entries to the disk, where the system can. */
export async function syncFolder(folder: string): Promise<void> {
  const handle = await open(folder, 'r').catch(() => null);
  await handle?.sync().catch(() => {});
  await handle?.close();
}

/** Writes a file whole or not at all: under a temporary name beside it, synced to disk, then renamed. */
export async function writeWhole(path: string, bytes: Uint8Array, mode?: number): Promise<void> {
  const temporary = join(dirname(path), `.${randomUUID()}.part`);
  try {
    const handle = await open(temporary, 'wx', mode);
    try {
      await handle.writeFile(bytes);
      await handle.sync();
    } finally {
      await handle.close();
    }
    await rename(temporary, path);
  } catch (error) {
    await rm(temporary, { force: true });
    throw error;
  }
}
