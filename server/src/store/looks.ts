import { eq } from 'drizzle-orm';
import type { Database } from '../db/open.ts';
import { type Look, recipeRevision } from '../db/schema.ts';

/** Keeps a look with its revision. */
export async function setLook(db: Database, revisionId: string, look: Look): Promise<void> {
  await db.update(recipeRevision).set({ look }).where(eq(recipeRevision.id, revisionId));
}
