import { execFileSync } from 'node:child_process';
import { mkdir, open, rm, statfs } from 'node:fs/promises';
import { join } from 'node:path';

/** A small disk of its own in a folder; null where this user may not mount one. */
export async function smallDisk(folder: string, megabytes: number) {
  const path = join(folder, 'disk');
  await mkdir(path, { recursive: true });
  try {
    execFileSync('mount', ['-t', 'tmpfs', '-o', `size=${megabytes}m`, 'tmpfs', path], { stdio: 'ignore' });
  } catch {
    return null;
  }
  const filler = join(path, 'filler');
  return {
    path,
    /** Fills the disk until this many bytes are left. */
    async fill(left = 0): Promise<void> {
      const handle = await open(filler, 'a');
      try {
        for (;;) {
          const { bavail, bsize } = await statfs(path);
          const room = bavail * bsize - left;
          if (room <= 0) return;
          await handle.write(Buffer.alloc(Math.min(room, 2 ** 20)));
        }
      } catch (error) {
        if ((error as NodeJS.ErrnoException).code !== 'ENOSPC') throw error;
      } finally {
        await handle.close();
      }
    },
    /** Makes room again. */
    empty: () => rm(filler, { force: true }),
    unmount: () => execFileSync('umount', ['-l', path]),
  };
}
