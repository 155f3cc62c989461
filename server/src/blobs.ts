import { access, mkdir, readFile, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { sha256Of, writeWhole } from '@zesty-tile/codecs';
import { Problem } from '@zesty-tile/core';

/** Files named by their content's SHA-256: `blobs/ab/cdef…`. Written once, never changed. */
export class Blobs {
  readonly folder: string;

  constructor(folder: string) {
    this.folder = join(folder, 'blobs');
  }

  path(sha256: string): string {
    if (!/^[0-9a-f]{64}$/.test(sha256)) {
      throw new Problem('bad_name', 'That is not the name of a stored file.', 'Use a SHA-256 in hex.');
    }
    return join(this.folder, sha256.slice(0, 2), sha256.slice(2));
  }

  /** Stores bytes; the same bytes again cost nothing. Returns their SHA-256. */
  async put(bytes: Uint8Array): Promise<string> {
    const sha256 = sha256Of(bytes);
    const path = this.path(sha256);
    if (!(await this.has(sha256))) {
      await mkdir(join(path, '..'), { recursive: true });
      await writeWhole(path, bytes);
    }
    return sha256;
  }

  /** Takes away what turned out not to be worth keeping. */
  async drop(sha256: string): Promise<void> {
    await rm(this.path(sha256), { force: true });
  }

  async has(sha256: string): Promise<boolean> {
    return access(this.path(sha256)).then(
      () => true,
      () => false,
    );
  }

  /** @throws Problem `source_gone` where the file is no longer on disk. */
  async get(sha256: string): Promise<Uint8Array> {
    return readBlob(this.path(sha256));
  }
}

/** Reads a blob's file by its path. @throws Problem `source_gone` where it is no longer there. */
export async function readBlob(path: string): Promise<Uint8Array> {
  try {
    return await readFile(path);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'ENOENT') throw error;
    throw new Problem(
      'source_gone',
      'The picture is no longer in the store on disk.',
      'Give the same picture again: it is found by its content, and the tile works as before.',
    );
  }
}
