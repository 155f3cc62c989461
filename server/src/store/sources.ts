import { picturesOf, type Recipe } from '@zesty-tile/core';
import { eq } from 'drizzle-orm';
import type { Blobs, Incoming } from '../blobs.ts';
import type { Database } from '../db/open.ts';
import { source } from '../db/schema.ts';
import type { Pool } from '../pool/pool.ts';
import type { StoredSource } from '../pool/tasks.ts';
import { notFound } from '../problems.ts';

/** The row of a source. @throws Problem `not_found`. */
export async function sourceRow(db: Database, sha256: string): Promise<typeof source.$inferSelect> {
  const row = await db.query.source.findFirst({ where: eq(source.sha256, sha256) });
  if (!row) throw notFound('picture');
  return row;
}

/** Checks a picture that was received, stores it, and returns its row. A refused one leaves the store as it was. */
export async function storeIncoming(
  db: Database,
  pool: Pool,
  incoming: Incoming,
): Promise<typeof source.$inferSelect> {
  const { sha256, bytes, path } = incoming;
  try {
    const known = await db.query.source.findFirst({ where: eq(source.sha256, sha256) });
    if (known) {
      await incoming.keep();
      return known;
    }
    const { facts } = await pool.facts({ path, bytes });
    // A header can promise what the file does not hold: it is decoded once before it is accepted.
    await pool.pixels({ source: { sha256, ...facts, path }, shortEdge: 64, as: 'data' });
    await incoming.keep();
    await db
      .insert(source)
      .values({ sha256, ...facts, bytes, createdAt: new Date() })
      .onConflictDoNothing();
    return sourceRow(db, sha256);
  } finally {
    // Nothing is left of it where it was refused; nothing happens where it was kept.
    await incoming.drop();
  }
}

/** Checks a picture, stores it, and returns its row. The same bytes give the same row. */
export const storeSource = async (db: Database, blobs: Blobs, pool: Pool, bytes: Uint8Array) =>
  storeIncoming(db, pool, await blobs.receive([bytes]));

/** The pictures a recipe asks for beside its source, as they lie in the store. */
export const givenSources = (blobs: Blobs, recipe: Recipe): StoredSource[] =>
  Object.values(picturesOf(recipe)).map(({ sha256, width, height }) => ({
    sha256,
    width,
    height,
    path: blobs.path(sha256),
  }));
