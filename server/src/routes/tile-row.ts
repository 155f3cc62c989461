import { parseRecipe } from '@zesty-tile/core';
import { and, desc, eq, isNull, max } from 'drizzle-orm';
import type { Database } from '../db/open.ts';
import { recipeRevision, tile } from '../db/schema.ts';
import { notFound } from '../problems.ts';

/** The row of a tile that is not deleted. @throws Problem `not_found`. */
export async function tileRow(db: Database, id: string) {
  const row = await db.query.tile.findFirst({ where: and(eq(tile.id, id), isNull(tile.deletedAt)) });
  if (!row) throw notFound('tile');
  return row;
}

/** The row of a tile, deleted or not: its crates stay. @throws Problem `not_found`. */
export async function anyTileRow(db: Database, id: string) {
  const row = await db.query.tile.findFirst({ where: eq(tile.id, id) });
  if (!row) throw notFound('tile');
  return row;
}

/** A revision with all settings: one from an earlier version of the program lacks what came since. */
export const upToDate = (row: typeof recipeRevision.$inferSelect) => ({
  ...row,
  recipe: parseRecipe(row.recipe),
});

/** One revision of a tile. @throws Problem `not_found`. */
export async function revisionRow(db: Database, tileId: string, number: number) {
  const row = await db.query.recipeRevision.findFirst({
    where: and(eq(recipeRevision.tileId, tileId), eq(recipeRevision.number, number)),
  });
  if (!row) throw notFound('version');
  return upToDate(row);
}

/** The newest revision of a tile. */
export async function newestRevision(db: Database, tileId: string) {
  const row = await db.query.recipeRevision.findFirst({
    where: eq(recipeRevision.tileId, tileId),
    orderBy: desc(recipeRevision.number),
  });
  if (!row) throw notFound('revision');
  return upToDate(row);
}

/** The number of a tile's newest revision. */
export async function newestNumber(db: Database, tileId: string): Promise<number> {
  const [newest] = await db
    .select({ number: max(recipeRevision.number) })
    .from(recipeRevision)
    .where(eq(recipeRevision.tileId, tileId));
  if (!newest?.number) throw notFound('revision');
  return newest.number;
}
