import type { Recipe } from '@zesty-tile/core';
import { and, desc, eq, lt, max } from 'drizzle-orm';
import type { Database } from '../db/open.ts';
import { type Look, recipeRevision } from '../db/schema.ts';
import { newId } from '../ids.ts';
import { notFound } from '../problems.ts';
import { recipeToStore, withRecipes } from './recipes.ts';

/** A revision of a tile, its recipe whole and of the present version. */
export interface Revision {
  id: string;
  tileId: string;
  number: number;
  recipe: Recipe;
  look: Look | null;
  createdAt: Date;
}

/** What adds a revision to a tile, to be run in one call. */
export function revisionStatements(db: Database, tileId: string, number: number, recipe: Recipe) {
  const { stored, statements } = recipeToStore(db, recipe);
  const row = { id: newId(), tileId, number, recipe: stored, createdAt: new Date() };
  return [...statements, db.insert(recipeRevision).values(row)] as const;
}

/** Adds a revision to a tile. Fails where its number is taken (see `isTaken`). */
export async function addRevision(
  db: Database,
  tileId: string,
  number: number,
  recipe: Recipe,
): Promise<void> {
  const [first, ...others] = revisionStatements(db, tileId, number, recipe);
  await db.batch([first, ...others]);
}

/** One revision of a tile. @throws Problem `not_found`. */
export async function revisionRow(db: Database, tileId: string, number: number): Promise<Revision> {
  const row = await db.query.recipeRevision.findFirst({
    where: and(eq(recipeRevision.tileId, tileId), eq(recipeRevision.number, number)),
  });
  if (!row) throw notFound('version');
  return (await withRecipes(db, [row]))[0];
}

/** The newest revision of a tile. @throws Problem `not_found`. */
export async function newestRevision(db: Database, tileId: string): Promise<Revision> {
  const row = await db.query.recipeRevision.findFirst({
    where: eq(recipeRevision.tileId, tileId),
    orderBy: desc(recipeRevision.number),
  });
  if (!row) throw notFound('revision');
  return (await withRecipes(db, [row]))[0];
}

/** At most `limit` revisions of a tile, newest first, those before a number where one is given. */
export async function revisionsBefore(
  db: Database,
  tileId: string,
  before: number,
  limit: number,
): Promise<Revision[]> {
  const rows = await db.query.recipeRevision.findMany({
    where: and(
      eq(recipeRevision.tileId, tileId),
      Number.isFinite(before) ? lt(recipeRevision.number, before) : undefined,
    ),
    orderBy: desc(recipeRevision.number),
    limit,
  });
  return withRecipes(db, rows);
}

/** The number of a tile's newest revision. @throws Problem `not_found`. */
export async function newestNumber(db: Database, tileId: string): Promise<number> {
  const [newest] = await db
    .select({ number: max(recipeRevision.number) })
    .from(recipeRevision)
    .where(eq(recipeRevision.tileId, tileId));
  if (!newest?.number) throw notFound('revision');
  return newest.number;
}
