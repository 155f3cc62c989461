import { parseRecipe, picturesOf } from '@zesty-tile/core';
import { eq } from 'drizzle-orm';
import type { Database } from '../db/open.ts';
import { type crateJob, tile } from '../db/schema.ts';
import { notFound } from '../problems.ts';
import { revisionRow } from '../store/revisions.ts';
import { sourceRow } from '../store/sources.ts';
import type { CrateOrder } from './order.ts';

/** What the queue needs to make a crate: the recipe of its revision, and the pictures it reads. @throws Problem `not_found`. */
export async function orderOf(db: Database, job: typeof crateJob.$inferSelect): Promise<CrateOrder> {
  const row = await db.query.tile.findFirst({ where: eq(tile.id, job.tileId) });
  if (!row) throw notFound('tile');
  const { recipe } = await revisionRow(db, job.tileId, job.revision);
  const { sha256, width, height } = await sourceRow(db, row.sourceSha256);
  return {
    id: job.id,
    tile: job.name,
    crate: job.number,
    source: { sha256, width, height, file: row.sourceName },
    given: Object.values(picturesOf(recipe)).map((one) => ({
      sha256: one.sha256,
      width: one.width,
      height: one.height,
    })),
    recipe: parseRecipe(recipe),
  };
}
