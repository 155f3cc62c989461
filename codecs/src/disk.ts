import { basename } from 'node:path';
import { Problem } from '@zesty-tile/core';

/** What the disk said of a folder, in words; any other error as it came. */
export function diskProblem(error: unknown, folder: string): unknown {
  const name = basename(folder) || folder;
  switch ((error as NodeJS.ErrnoException | null)?.code) {
    case 'ENOSPC':
    case 'EDQUOT':
      return new Problem(
        'disk_full',
        `The disk of “${name}” is full; what was there before is whole.`,
        'Make room and run it again.',
      );
    case 'EACCES':
    case 'EPERM':
    case 'EROFS':
      return new Problem(
        'no_permission',
        `Nothing may be written in “${name}”.`,
        'Choose another folder, or give yourself the right to write there.',
      );
    case 'ENOTDIR':
    case 'EEXIST':
      return new Problem(
        'no_folder',
        `“${name}” is no folder; a file is in its place.`,
        'Choose another folder.',
      );
    default:
      return error;
  }
}

/** Does something with a folder; what the disk refuses is said in words. */
export async function onDisk<T>(folder: string, work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    throw diskProblem(error, folder);
  }
}
