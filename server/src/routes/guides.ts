import { and, asc, eq } from 'drizzle-orm';
import { Hono } from 'hono';
import * as v from 'valibot';
import type { Database } from '../db/open.ts';
import { guide } from '../db/schema.ts';
import { newId } from '../ids.ts';
import { bodyOf, nameSchema } from '../input.ts';
import { notFound } from '../problems.ts';
import { sourceRow } from '../store/sources.ts';
import { tileRow } from '../store/tiles.ts';

/** Pictures pinned beside a tile. Addresses start with the tile's. */
export const guideRoutes = (db: Database) =>
  new Hono()
    .get('/:id/guides', async (c) => {
      const row = await tileRow(db, c.req.param('id'));
      const guides = await db
        .select({ id: guide.id, name: guide.name, sourceSha256: guide.sourceSha256 })
        .from(guide)
        .where(eq(guide.tileId, row.id))
        .orderBy(asc(guide.createdAt));
      return c.json({ guides });
    })
    .post('/:id/guides', async (c) => {
      const row = await tileRow(db, c.req.param('id'));
      const given = await bodyOf(c, v.strictObject({ name: nameSchema, sourceSha256: v.string() }));
      await sourceRow(db, given.sourceSha256);
      const [made] = await db
        .insert(guide)
        .values({ id: newId(), tileId: row.id, ...given, createdAt: new Date() })
        .returning();
      return c.json({ guide: { id: made.id, name: made.name, sourceSha256: made.sourceSha256 } }, 201);
    })
    .delete('/:id/guides/:guide', async (c) => {
      const rows = await db
        .delete(guide)
        .where(and(eq(guide.id, c.req.param('guide')), eq(guide.tileId, c.req.param('id'))))
        .returning({ id: guide.id });
      if (rows.length === 0) throw notFound('guide picture');
      return c.json(rows[0]);
    });
