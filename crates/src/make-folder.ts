import { mkdir, stat } from 'node:fs/promises';
import { dirname } from 'node:path';

/**
 * Makes a folder and those it lies in. Returns the outermost one that was made; null where all were there. Step by step, since
 * the system's own recursive call never ends where a disk refuses new folders, as `/proc` does.
 * @throws what the disk refuses.
 */
export async function makeFolder(path: string): Promise<string | null> {
  try {
    await mkdir(path);
    return path;
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    const about = await stat(path).catch(() => null);
    if (about?.isDirectory()) return null;
    const parent = dirname(path);
    if (code !== 'ENOENT' || parent === path) throw error;
    const made = await makeFolder(parent);
    // Where its parent was there all along, the disk refuses it once more.
    await mkdir(path);
    return made ?? path;
  }
}
