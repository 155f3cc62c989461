import { createHash, randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { access, mkdir, open, readdir, readFile, rename, rm, stat } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { Readable } from 'node:stream';
import { Problem } from '@zesty-tile/core';
import { partName, syncFolder } from '@zesty-tile/crates';

/** Bytes that have been written, but are not in the store yet. */
export interface Incoming {
  /** Where they lie until then. */
  path: string;
  sha256: string;
  bytes: number;
  /** Puts them in the store under their SHA-256. */
  keep(): Promise<void>;
  /** Removes them; the store is as it was. */
  drop(): Promise<void>;
}

/** Files named by their content's SHA-256: `blobs/ab/cdef…`. Written once, never changed. */
export class Blobs {
  readonly folder: string;
  readonly #incoming: string;

  constructor(folder: string) {
    this.folder = join(folder, 'blobs');
    this.#incoming = join(this.folder, 'incoming');
  }

  path(sha256: string): string {
    if (!/^[0-9a-f]{64}$/.test(sha256)) {
      throw new Problem('bad_name', 'That is not the name of a stored file.', 'Use a SHA-256 in hex.');
    }
    return join(this.folder, sha256.slice(0, 2), sha256.slice(2));
  }

  /**
   * Writes chunks to the disk as they come, beside the store, so that they can be checked before they are kept. Whatever goes
   * wrong leaves nothing behind.
   */
  async receive(chunks: AsyncIterable<Uint8Array> | Iterable<Uint8Array>): Promise<Incoming> {
    await mkdir(this.#incoming, { recursive: true });
    const path = join(this.#incoming, partName(randomUUID()));
    const drop = () => rm(path, { force: true });
    const hash = createHash('sha256');
    let bytes = 0;
    try {
      const handle = await open(path, 'wx');
      try {
        for await (const chunk of chunks) {
          hash.update(chunk);
          bytes += chunk.length;
          await handle.writeFile(chunk);
        }
        await handle.sync();
      } finally {
        await handle.close();
      }
    } catch (error) {
      await drop();
      throw error;
    }
    const sha256 = hash.digest('hex');
    return {
      path,
      sha256,
      bytes,
      drop,
      keep: async () => {
        const to = this.path(sha256);
        await mkdir(dirname(to), { recursive: true });
        // Also where the blob is there: one that the disk damaged is whole again.
        await rename(path, to);
        await syncFolder(dirname(to));
      },
    };
  }

  /** Stores bytes under their SHA-256, and returns it. */
  async put(bytes: Uint8Array): Promise<string> {
    const incoming = await this.receive([bytes]);
    try {
      await incoming.keep();
    } catch (error) {
      await incoming.drop();
      throw error;
    }
    return incoming.sha256;
  }

  async has(sha256: string): Promise<boolean> {
    return access(this.path(sha256)).then(
      () => true,
      () => false,
    );
  }

  /** A stored file, read as it is sent. @throws Problem `source_gone` where it is no longer on disk. */
  async stream(sha256: string): Promise<ReadableStream<Uint8Array>> {
    const path = this.path(sha256);
    if (!(await this.has(sha256))) throw sourceGone();
    return Readable.toWeb(createReadStream(path)) as ReadableStream<Uint8Array>;
  }

  /**
   * Removes stored files that nothing refers to, written before `before`. For a store of one server alone, and before it
   * accepts anything. Returns how many were removed.
   */
  async sweepOrphans(isReferred: (sha256: string) => boolean, before: Date): Promise<number> {
    let removed = 0;
    for (const start of await readdir(this.folder).catch(() => [])) {
      if (!/^[0-9a-f]{2}$/.test(start)) continue;
      for (const rest of await readdir(join(this.folder, start)).catch(() => [])) {
        const sha256 = start + rest;
        if (!/^[0-9a-f]{64}$/.test(sha256) || isReferred(sha256)) continue;
        const about = await stat(this.path(sha256)).catch(() => null);
        if (!about || about.mtime >= before) continue;
        await rm(this.path(sha256), { force: true });
        removed++;
      }
    }
    return removed;
  }
}

/** Reads a blob's file by its path. @throws Problem `source_gone` where it is no longer there. */
export async function readBlob(path: string): Promise<Uint8Array> {
  try {
    return await readFile(path);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'ENOENT') throw error;
    throw sourceGone();
  }
}

const sourceGone = () =>
  new Problem(
    'source_gone',
    'The picture is no longer in the store on disk.',
    'Upload the same picture again: it is recognised by its content, and the tile works as before.',
  );
