import { randomUUID } from 'node:crypto';
import { open, rename, rm } from 'node:fs/promises';
import { dirname, join } from 'node:path';

/** Writes a file whole or not at all: under a temporary name beside it, synced to disk, then renamed. */
export async function writeWhole(path: string, bytes: Uint8Array): Promise<void> {
  const temporary = join(dirname(path), `.${randomUUID()}.part`);
  try {
    const handle = await open(temporary, 'wx');
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
