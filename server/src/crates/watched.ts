import { readFile, realpath } from 'node:fs/promises';
import { isAbsolute, join, resolve, sep } from 'node:path';
import { Problem } from '@zesty-tile/core';
import { diskProblem, stageSet } from '@zesty-tile/crates';

const isInside = (path: string, folder: string): boolean => path === folder || path.startsWith(folder + sep);

/** Folders that renderers watch: crates are copied into them on request, one after the other. */
export class WatchedFolders {
  readonly #own: readonly string[];
  readonly #turns = new Map<string, Promise<unknown>>();

  /** `own` are the folders of the program itself, which nothing may be put in. */
  constructor(own: readonly string[]) {
    this.#own = own.map((folder) => resolve(folder));
  }

  /** The real path of a folder, links followed. @throws Problem `bad_folder` for one of the program's own. */
  async #realPath(folder: string): Promise<string> {
    const real = await realpath(folder);
    const own = await Promise.all(this.#own.map((one) => realpath(one).catch(() => one)));
    if (own.some((one) => isInside(real, one))) throw ownFolder();
    return real;
  }

  /**
   * A folder as it may be kept with a tile: its real path, once something could be written there.
   * @throws Problem `bad_folder`, or what the disk refuses in words.
   */
  async usable(folder: string): Promise<string> {
    if (folder.includes('\0')) throw badFolder('The path holds a character that no path may have.');
    if (!isAbsolute(folder)) throw badFolder('The path must be absolute.');
    const path = resolve(folder);
    if (this.#own.some((own) => isInside(path, own))) throw ownFolder();
    const staging = await stageSet(path);
    try {
      return await this.#realPath(path);
    } catch (error) {
      throw diskProblem(error, path);
    } finally {
      await staging.drop();
    }
  }

  /** Does something with a folder once everything asked of it before has ended. */
  async inTurn<T>(folder: string, work: () => Promise<T>): Promise<T> {
    const before = this.#turns.get(folder) ?? Promise.resolve();
    const turn = before.catch(() => {}).then(work);
    this.#turns.set(folder, turn);
    try {
      return await turn;
    } finally {
      if (this.#turns.get(folder) === turn) this.#turns.delete(folder);
    }
  }

  /**
   * Puts files of one folder, the manifest last, into another, all or none; the set before is kept beside them.
   * @throws Problem in words where that cannot be done.
   */
  async refresh(from: string, names: readonly string[], folder: string): Promise<void> {
    try {
      const staging = await stageSet(folder);
      try {
        // What the path leads to may have changed since it was given.
        await this.#realPath(folder);
        for (const name of names) await staging.put(name, await readFile(join(from, name)));
        await staging.place(names, { replace: true, keep: true });
      } catch (error) {
        await staging.drop();
        throw error;
      }
    } catch (error) {
      throw diskProblem(error, folder);
    }
  }
}

const badFolder = (why: string) =>
  new Problem('bad_folder', why, 'Give the whole path of a folder of your renderer.', 'folder');
const ownFolder = () => badFolder('That folder is reserved for the program’s data.');
