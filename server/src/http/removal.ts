import { eq } from 'drizzle-orm';
import { Hono } from 'hono';
import type { Database } from '../db/open.ts';
import type {
  chart,
  crateJob,
  palette,
  profile,
  project,
  rig,
  savedRecipe,
  surroundings,
  tile,
} from '../db/schema.ts';
import { notFound } from '../problems.ts';

/** Deleting that can be undone, the same for everything that has a name. */
export function removal(
  db: Database,
  table:
    | typeof chart
    | typeof crateJob
    | typeof profile
    | typeof project
    | typeof tile
    | typeof palette
    | typeof rig
    | typeof savedRecipe
    | typeof surroundings,
  what: string,
) {
  const mark = async (id: string, deletedAt: Date | null) => {
    const rows = await db
      .update(table)
      .set({ deletedAt })
      .where(eq(table.id, id))
      .returning({ id: table.id });
    if (rows.length === 0) throw notFound(what);
    return { id };
  };
  return new Hono()
    .delete('/:id', async (c) => c.json(await mark(c.req.param('id'), new Date())))
    .post('/:id/restore', async (c) => c.json(await mark(c.req.param('id'), null)));
}
