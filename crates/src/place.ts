import { randomUUID } from 'node:crypto';
import {
  access,
  copyFile,
  link,
  lstat,
  mkdir,
  open,
  readdir,
  readFile,
  rename,
  rm,
  rmdir,
} from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { Problem } from '@zesty-tile/core';
import { onDisk } from './disk.ts';
import { makeFolder } from './make-folder.ts';
import { claimPart, isLeftBehind, isPart, partName } from './part.ts';
import { syncFolder, writeWhole } from './write.ts';

/** Folder beside the files where the set before the last is kept, on request. */
export const FORMER = 'former';

const JOURNAL = 'placing.json';
const OLD = 'old';
const MANIFEST = '.tile.json';

interface Journal {
  /** Files of the new set, its manifest last. */
  names: string[];
  /** Files of the old set that the new one does not have. */
  stale: string[];
  /** Whether the old set stays, under `former`. */
  keep: boolean;
}

const exists = (path: string) =>
  access(path).then(
    () => true,
    () => false,
  );

/** A second name for a file, or a copy where the disk has no second names. */
const again = (from: string, to: string) => link(from, to).catch(() => copyFile(from, to));

/** Whether a text is the name of a file in a folder: no path, nothing that a system reads as one. */
const isPlainName = (name: unknown): name is string =>
  typeof name === 'string' &&
  name !== '' &&
  name !== '.' &&
  name !== '..' &&
  !/[/\\\0]/.test(name) &&
  Buffer.byteLength(name) <= 255;

/**
 * A journal from its text; null where it is not one of this program: it may come from anywhere, and names that lead out of the
 * folder could remove files there.
 */
function journalOf(text: string): Journal | null {
  let value: Partial<Journal>;
  try {
    value = JSON.parse(text);
  } catch {
    return null;
  }
  const { names, stale, keep } = value ?? {};
  if (!Array.isArray(names) || !Array.isArray(stale) || names.length === 0) return null;
  // The former set lies in a folder of the manifest's name.
  const stem = names.at(-1)?.endsWith(MANIFEST) ? names.at(-1)?.slice(0, -MANIFEST.length) : null;
  if (![...names, ...stale, stem].every(isPlainName)) return null;
  return { names, stale, keep: keep === true };
}

/**
 * Puts a set that is whole in its place: first the old manifest goes, last the new one comes, so that a manifest never
 * speaks of files of another set. Can be interrupted anywhere and begun again.
 */
async function finish(folder: string, staging: string, { names, stale, keep }: Journal): Promise<void> {
  const manifest = names[names.length - 1];
  if (await exists(join(staging, manifest))) await rm(join(folder, manifest), { force: true });
  for (const name of stale) await rm(join(folder, name), { force: true });
  for (const name of names) {
    const from = join(staging, name);
    if (await exists(from)) await rename(from, join(folder, name));
  }
  await syncFolder(folder);
  if (keep && (await exists(join(staging, OLD)))) {
    const former = join(folder, FORMER);
    await mkdir(former, { recursive: true });
    const place = join(former, manifest.slice(0, -MANIFEST.length));
    await rm(place, { recursive: true, force: true });
    await rename(join(staging, OLD), place);
  }
  await rm(staging, { recursive: true, force: true });
}

/**
 * Clears what a kill left behind in a folder: a set that was whole is put in its place, one that was not is removed.
 * `isStale` tells which unfinished work has ended; by default that of processes that are gone.
 */
export async function recoverFolder(
  folder: string,
  isStale: (part: string) => boolean = isLeftBehind,
): Promise<void> {
  for (const name of await readdir(folder).catch(() => [])) {
    if (!isPart(name) || !isStale(name)) continue;
    const staging = join(folder, name);
    const about = await lstat(staging);
    const text = about.isDirectory()
      ? await readFile(join(staging, JOURNAL), 'utf8').catch(() => null)
      : null;
    if (text === null) {
      await rm(staging, { recursive: true, force: true });
      continue;
    }
    const journal = journalOf(text);
    // A journal that was not written here is left alone, and its folder with it.
    if (journal) await finish(folder, staging, journal);
  }
}

/** Files that the set of a manifest has, as far as it lies in the folder. */
async function filesOf(folder: string, manifest: string): Promise<string[]> {
  try {
    const { files: pictures = [], texts = [] } = JSON.parse(await readFile(join(folder, manifest), 'utf8'));
    const names: unknown[] = [...pictures, ...texts].map(({ file }) => file);
    // A name from outside may not lead out of the folder, nor be a folder in it.
    const files = names.filter(isPlainName);
    const about = await Promise.all(files.map((name) => lstat(join(folder, name)).catch(() => null)));
    return files.filter((_, k) => about[k] && !about[k].isDirectory());
  } catch {
    return [];
  }
}

/** A set on its way into a folder: out of sight until it is whole. */
export interface Staging {
  put(name: string, bytes: Uint8Array): Promise<void>;
  /**
   * Puts the set, its manifest last, in its place, all of it. The old set stays whole until then, and after that under
   * `former` where `keep` says so.
   * @throws Problem `exists` where a file of the set is there and `replace` is not said.
   */
  place(names: readonly string[], how: { replace: boolean; keep: boolean }): Promise<void>;
  /** Takes away what was put. */
  drop(): Promise<void>;
}

/** @throws Problem `exists` where one of these files is in the folder. */
export async function refuseExisting(folder: string, names: readonly string[]): Promise<void> {
  for (const name of names) {
    if (!(await exists(join(folder, name)))) continue;
    throw new Problem(
      'exists',
      `${name} exists in ${folder}; nothing was written.`,
      'Use --force to replace it, or another --name.',
    );
  }
}

/** Takes away folders that were made on the way, from the inmost, while they are empty. */
async function dropEmpty(folder: string, outmost: string | null): Promise<void> {
  if (!outmost) return;
  for (let at = folder; at.startsWith(outmost); at = dirname(at)) {
    const isGone = await rmdir(at).then(
      () => true,
      () => false,
    );
    if (!isGone) return;
  }
}

/**
 * Begins a set of files in a folder, which is made where it is missing. What is put is written under names of its own,
 * synced to disk, and put in place together once all is there; what a kill left behind before is seen to first.
 * @throws Problem `no_permission`, `no_folder`, `disk_full` as the disk has it.
 */
export async function stageSet(folder: string): Promise<Staging> {
  const own = partName(randomUUID());
  const staging = join(folder, own);
  const release = claimPart(own);
  let made: string | null = null;
  const drop = async () => {
    await rm(staging, { recursive: true, force: true });
    await dropEmpty(folder, made);
    release();
  };
  await onDisk(folder, async () => {
    made = await makeFolder(folder);
    await recoverFolder(folder);
    await mkdir(staging);
  }).catch(async (error) => {
    await drop().catch(() => {});
    throw error;
  });
  return {
    drop,
    put: (name, bytes) =>
      onDisk(folder, async () => {
        const handle = await open(join(staging, name), 'wx');
        try {
          await handle.writeFile(bytes);
          await handle.sync();
        } finally {
          await handle.close();
        }
      }),
    place: (names, { replace, keep }) =>
      onDisk(folder, async () => {
        if (!replace) await refuseExisting(folder, names);
        const before = await filesOf(folder, names[names.length - 1]);
        const stale = before.filter((name) => !names.includes(name));
        const old = join(staging, OLD);
        for (const name of new Set([...before, ...names])) {
          if (!(await exists(join(folder, name)))) continue;
          await mkdir(old, { recursive: true });
          await again(join(folder, name), join(old, name));
        }
        await syncFolder(staging);
        const journal: Journal = { names: [...names], stale, keep };
        await writeWhole(join(staging, JOURNAL), new TextEncoder().encode(JSON.stringify(journal)));
        await finish(folder, staging, journal);
        release();
      }),
  };
}
