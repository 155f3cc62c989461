import { Problem } from '@zesty-tile/core';
import { and, asc, eq, isNull } from 'drizzle-orm';
import { Hono } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import * as v from 'valibot';
import type { Blobs } from '../blobs.ts';
import type { Database } from '../db/open.ts';
import { surroundings } from '../db/schema.ts';
import { newId } from '../ids.ts';
import { nameSchema } from '../input.ts';
import { notFound } from '../problems.ts';
import { removal } from './removal.ts';

const MOST_BYTES = 128 * 2 ** 20;

const tooLarge = () =>
  new Problem(
    'file_too_large',
    'The picture is larger than 128 MB.',
    'Save it smaller: 4096 px across are plenty.',
  );

/** What a file is by its first bytes; null where it is nothing that stands all round. */
function formatOf(bytes: Uint8Array): 'hdr' | 'exr' | 'picture' | null {
  const text = String.fromCharCode(...bytes.subarray(0, 12));
  if (text.startsWith('#?')) return 'hdr';
  if (text.startsWith('\x76\x2f\x31\x01')) return 'exr';
  const isPicture =
    text.startsWith('\xff\xd8\xff') ||
    text.startsWith('\x89PNG') ||
    (text.startsWith('RIFF') && text.endsWith('WEBP'));
  return isPicture ? 'picture' : null;
}

const shown = ({ id, name, format }: typeof surroundings.$inferSelect) => ({ id, name, format });

/** 360° pictures of one's own, for all projects. */
export const surroundingsRoutes = (db: Database, blobs: Blobs) =>
  new Hono()
    .get('/', async (c) => {
      const rows = await db.query.surroundings.findMany({
        where: isNull(surroundings.deletedAt),
        orderBy: asc(surroundings.createdAt),
      });
      return c.json({ surroundings: rows.map(shown) });
    })
    .post(
      '/',
      bodyLimit({
        maxSize: MOST_BYTES,
        onError: () => {
          throw tooLarge();
        },
      }),
      async (c) => {
        const name = v.parse(v.fallback(nameSchema, 'Surroundings'), c.req.query('name'));
        const bytes = new Uint8Array(await c.req.arrayBuffer());
        const format = formatOf(bytes);
        if (!format) {
          throw new Problem(
            'bad_picture',
            `${name} is no picture that can stand all round.`,
            'Give a Radiance HDR, an OpenEXR, or a PNG, JPEG or WebP that is twice as wide as high.',
          );
        }
        const sha256 = await blobs.put(bytes);
        const [row] = await db
          .insert(surroundings)
          .values({ id: newId(), name, sha256, format, createdAt: new Date() })
          .returning();
        return c.json({ surroundings: shown(row) }, 201);
      },
    )
    .get('/:id/file', async (c) => {
      const row = await db.query.surroundings.findFirst({
        where: and(eq(surroundings.id, c.req.param('id')), isNull(surroundings.deletedAt)),
      });
      if (!row) throw notFound('surroundings');
      return c.body((await blobs.get(row.sha256)) as Uint8Array<ArrayBuffer>, 200, {
        'Content-Type': 'application/octet-stream',
        'Cache-Control': 'private, max-age=31536000, immutable',
      });
    })
    .route('/', removal(db, surroundings, 'surroundings'));
