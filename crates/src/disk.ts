import { basename } from 'node:path';
import { Problem } from '@zesty-tile/core';

const quoted = (folder: string) => `“${(basename(folder) || folder).replaceAll('\0', '').slice(0, 80)}”`;

const writeElsewhere = 'Choose another folder, or give yourself the right to write there.';

/** What the system means by an error code, for a folder. */
const MEANINGS: Record<string, (name: string) => Problem> = {
  ENOSPC: (name) =>
    new Problem(
      'disk_full',
      `The disk of ${name} is full; what was there before is whole.`,
      'Make room and run it again.',
    ),
  EACCES: (name) => new Problem('no_permission', `Nothing may be written in ${name}.`, writeElsewhere),
  EROFS: (name) => new Problem('read_only', `The disk of ${name} can only be read.`, writeElsewhere),
  ENOTDIR: (name) =>
    new Problem('no_folder', `${name} is not a folder; a file is in its place.`, 'Choose another folder.'),
  EISDIR: (name) =>
    new Problem(
      'no_folder',
      `${name} has a folder where a file of the set belongs.`,
      'Move that folder, or choose another.',
    ),
  ENOENT: (name) =>
    new Problem('no_folder', `${name} cannot be made there.`, 'Choose a folder on an ordinary disk.'),
  ENAMETOOLONG: (name) =>
    new Problem('name_too_long', `${name} has a name that is too long for its disk.`, 'Use shorter names.'),
  ERR_INVALID_ARG_VALUE: (name) =>
    new Problem('bad_name', `${name} has a character that no file name may have.`, 'Choose another name.'),
  ELOOP: (name) =>
    new Problem('no_folder', `${name} is a link that leads back to itself.`, 'Choose another folder.'),
  EMFILE: (name) =>
    new Problem(
      'too_many_files',
      `The system allows no more open files, so ${name} could not be written.`,
      'Wait a moment and run it again; end other programs, or raise the limit on open files.',
    ),
  EBUSY: (name) =>
    new Problem('in_use', `Another program holds a file in ${name}.`, 'Close it there and run it again.'),
  EIO: (name) =>
    new Problem('disk_error', `The disk of ${name} reported an error.`, 'Check the disk, then run it again.'),
};

const SAME: Record<string, string> = {
  EDQUOT: 'ENOSPC',
  EPERM: 'EACCES',
  EEXIST: 'ENOTDIR',
  ENFILE: 'EMFILE',
};

/** What the disk refused in a folder, in words; any other error as it came. */
export function diskProblem(error: unknown, folder: string): unknown {
  const code = (error as NodeJS.ErrnoException | null)?.code ?? '';
  const meaning = SAME[code] ?? code;
  return Object.hasOwn(MEANINGS, meaning) ? MEANINGS[meaning](quoted(folder)) : error;
}

/** Does something with a folder; what the disk refuses is reported in words. */
export async function onDisk<T>(folder: string, work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    throw diskProblem(error, folder);
  }
}
