import { and, asc, eq, isNull } from 'drizzle-orm';
import { Hono } from 'hono';
import * as v from 'valibot';
import type { Blobs } from '../blobs.ts';
import type { Database } from '../db/open.ts';
import { surroundings } from '../db/schema.ts';
import { receiveBody } from '../http/receive.ts';
import { removal } from '../http/removal.ts';
import { newId } from '../ids.ts';
import { nameSchema } from '../input.ts';
import type { Pool } from '../pool/pool.ts';
import { notFound } from '../problems.ts';

const MOST_BYTES = 128 * 2 ** 20;

const shown = ({ id, name, format }: typeof surroundings.$inferSelect) => ({ id, name, format });

/** custom 360° pictures, for all projects. */
export const surroundingsRoutes = (db: Database, blobs: Blobs, pool: Pool) =>
  new Hono()
    .get('/', async (c) => {
      const rows = await db.query.surroundings.findMany({
        where: isNull(surroundings.deletedAt),
        orderBy: asc(surroundings.createdAt),
      });
      return c.json({ surroundings: rows.map(shown) });
    })
    .post('/', async (c) => {
      const name = v.parse(v.fallback(nameSchema, 'Surroundings'), c.req.query('name'));
      const incoming = await receiveBody(c, blobs, MOST_BYTES);
      try {
        const { format } = await pool.surroundings({ path: incoming.path });
        await incoming.keep();
        const [row] = await db
          .insert(surroundings)
          .values({ id: newId(), name, sha256: incoming.sha256, format, createdAt: new Date() })
          .returning();
        return c.json({ surroundings: shown(row) }, 201);
      } finally {
        await incoming.drop();
      }
    })
    .get('/:id/file', async (c) => {
      const row = await db.query.surroundings.findFirst({
        where: and(eq(surroundings.id, c.req.param('id')), isNull(surroundings.deletedAt)),
      });
      if (!row) throw notFound('surroundings');
      return c.body(await blobs.stream(row.sha256), 200, {
        'Content-Type': 'application/octet-stream',
        'Cache-Control': 'private, max-age=31536000, immutable',
      });
    })
    .route('/', removal(db, surroundings, 'surroundings'));
