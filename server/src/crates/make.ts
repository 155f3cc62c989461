import { mkdir, readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { MessageChannel } from 'node:worker_threads';
import { sha256Of } from '@zesty-tile/codecs';
import { type CrateNaming, manifestNames, Problem, type SourceRef } from '@zesty-tile/core';
import { type Manifest, recoverFolder } from '@zesty-tile/crates';
import { Blobs } from '../blobs.ts';
import type { Pool } from '../pool/pool.ts';
import { loggable, problemOf } from '../problems.ts';
import type { CrateEnd, CrateFileRow, CrateOrder, CrateProgress } from './order.ts';

/** The folder of a crate under the shared one. */
export const crateFolder = (shared: string, id: string): string => join(shared, 'crates', id);

/** Name of the manifest in the folder of a crate; null where it has none. */
async function findManifest(folder: string, naming: CrateNaming): Promise<string | null> {
  const names = await readdir(folder).catch(() => []);
  return manifestNames(naming).find((name) => (names as string[]).includes(name)) ?? null;
}

/** What the names of a crate's files begin with. */
export const namingOf = ({ name, number }: { name: string; number: number }): CrateNaming => ({
  tile: name,
  crate: number,
});

/** The manifest in the folder of a crate. @throws Problem `not_ready` where there is none. */
export async function readManifest(folder: string, naming: CrateNaming): Promise<Manifest> {
  const name = await findManifest(folder, naming);
  if (!name) throw new Problem('not_ready', 'The crate holds no files.', 'Wait for it, or run it again.');
  return JSON.parse(await readFile(join(folder, name), 'utf8'));
}

/** The files of a crate that is whole, its manifest last; null where it is not. What a kill left of it is cleared. */
export async function crateFiles(folder: string, naming: CrateNaming): Promise<CrateFileRow[] | null> {
  await recoverFolder(folder);
  const manifest = await findManifest(folder, naming);
  // A manifest comes last: where one is, all is.
  if (!manifest) return null;
  const names = await readdir(folder);
  const others = names.filter((name) => !name.startsWith('.') && name !== manifest).sort();
  const files: CrateFileRow[] = [];
  for (const name of [...others, manifest]) {
    const bytes = await readFile(join(folder, name));
    files.push({ name, bytes: bytes.length, sha256: sha256Of(bytes) });
  }
  return files;
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
      const naming = { tile: order.tile, crate: order.crate };
      const there = await crateFiles(folder, naming);
      if (there) return { state: 'done', files: there };
      const { files } = await this.#pool.crate(
        {
          source: stored(order.source),
          given: order.given.map(stored),
          recipe: order.recipe,
          naming,
          folder,
          port: port2,
        },
        signal,
      );
      return { state: 'done', files };
    } catch (error) {
      // What an interrupted thread left behind goes.
      if (signal.aborted) {
        await recoverFolder(folder).catch(this.#log);
        return { state: 'stopped' };
      }
      const problem = problemOf(error);
      if (problem) return { state: 'failed', message: `${problem.message} ${problem.hint}` };
      this.#log(loggable(error));
      return { state: 'failed', message: 'The work failed; the server log has details.' };
    } finally {
      port1.close();
    }
  }
}
