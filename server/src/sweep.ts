import { readdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { recoverFolder } from '@zesty-tile/crates';
import { and, asc, gt, isNotNull } from 'drizzle-orm';
import type { Blobs } from './blobs.ts';
import type { Database } from './db/open.ts';
import { recipeRevision, source, surroundings } from './db/schema.ts';

/** Rows that are read at a time. */
const PAGE = 500;

/** The SHA-256 of every stored file that a row refers to. */
async function referredBlobs(db: Database): Promise<Set<string>> {
  const found = new Set<string>();
  for (const { sha256 } of await db.select({ sha256: source.sha256 }).from(source)) found.add(sha256);
  for (const { sha256 } of await db.select({ sha256: surroundings.sha256 }).from(surroundings))
    found.add(sha256);
  for (let last = ''; ; ) {
    const rows = await db
      .select({ id: recipeRevision.id, look: recipeRevision.look })
      .from(recipeRevision)
      .where(and(isNotNull(recipeRevision.look), gt(recipeRevision.id, last)))
      .orderBy(asc(recipeRevision.id))
      .limit(PAGE);
    for (const { look } of rows) {
      for (const sha256 of [look?.thumbnail, look?.ball, ...Object.values(look?.maps ?? {})])
        if (sha256) found.add(sha256);
    }
    if (rows.length < PAGE) return found;
    last = rows[rows.length - 1].id;
  }
}

/**
 * Clears what earlier servers left unfinished in a data folder that is locked for this one: parts of uploads and crates, and
 * stored files that no row refers to. A crate that was whole is put in its place.
 */
export async function sweepFolder(data: string, db: Database, blobs: Blobs): Promise<void> {
  const before = new Date();
  const entries = await readdir(blobs.folder, { recursive: true }).catch(() => []);
  for (const name of entries) if (name.endsWith('.part')) await rm(join(blobs.folder, name), { force: true });
  const crates = join(data, 'crates');
  for (const id of await readdir(crates).catch(() => [])) await recoverFolder(join(crates, id), () => true);
  const referred = await referredBlobs(db);
  await blobs.sweepOrphans((sha256) => referred.has(sha256), before);
}
