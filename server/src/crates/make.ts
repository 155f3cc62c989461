import { mkdir, readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { MessageChannel } from 'node:worker_threads';
import { recoverFolder, sha256Of } from '@zesty-tile/codecs';
import { Problem, type SourceRef } from '@zesty-tile/core';
import { Blobs } from '../blobs.ts';
import type { Pool } from '../pool/pool.ts';
import { problemOf } from '../problems.ts';
import type { CrateEnd, CrateFileRow, CrateOrder, CrateProgress } from './order.ts';

/** The folder of a crate under the shared one. */
export const crateFolder = (shared: string, id: string): string => join(shared, 'crates', id);

const MANIFEST = '.tile.json';

/** The files of a crate that is whole; null where it is not. What a kill left of it is seen to. */
export async function crateFiles(folder: string): Promise<CrateFileRow[] | null> {
  await recoverFolder(folder);
  const names = (await readdir(folder).catch(() => [])).filter((name) => !name.startsWith('.')).sort();
  // A manifest comes last: where one is, all is.
  if (!names.some((name) => name.endsWith(MANIFEST))) return null;
  return Promise.all(
    names.map(async (name) => {
      const bytes = await readFile(join(folder, name));
      return { name, bytes: bytes.length, sha256: sha256Of(bytes) };
    }),
  );
}

/** Makes crates in threads of its own, from the blobs of a shared folder into its folder of crates. */
export class CrateMaker {
  readonly shared: string;
  #blobs: Blobs;
  #pool: Pool;
  #log: (error: unknown) => void;

  constructor(shared: string, pool: Pool, log: (error: unknown) => void) {
    this.shared = shared;
    this.#blobs = new Blobs(shared);
    this.#pool = pool;
    this.#log = log;
  }

  /** Makes a crate, or finds it made already: it is never made twice, and never half. */
  async make(
    order: CrateOrder,
    tell: (progress: CrateProgress) => void,
    signal: AbortSignal,
  ): Promise<CrateEnd> {
    const folder = crateFolder(this.shared, order.id);
    const { port1, port2 } = new MessageChannel();
    port1.on('message', tell);
    const stored = <T extends SourceRef>(source: T) => ({ ...source, path: this.#blobs.path(source.sha256) });
    try {
      await mkdir(join(this.shared, 'crates'), { recursive: true });
      const there = await crateFiles(folder);
      if (there) return { state: 'done', files: there };
      const { files } = await this.#pool.crate(
        {
          source: stored(order.source),
          given: order.given.map(stored),
          recipe: order.recipe,
          naming: { tile: order.tile, crate: order.crate },
          folder,
          port: port2,
        },
        signal,
      );
      return { state: 'done', files };
    } catch (error) {
      // What a broken off thread left behind goes.
      if (signal.aborted) {
        await recoverFolder(folder).catch(this.#log);
        return { state: 'stopped' };
      }
      const problem = problemOf(error);
      if (problem instanceof Problem)
        return { state: 'failed', message: `${problem.message} ${problem.hint}` };
      this.#log(error);
      return { state: 'failed', message: 'The work failed; the server’s log says more.' };
    } finally {
      port1.close();
    }
  }
}
