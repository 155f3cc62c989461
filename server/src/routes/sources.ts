import { LIMITS, plainPicture, readFacts } from '@zesty-tile/codecs';
import { Problem, picturesOf, type Recipe } from '@zesty-tile/core';
import { eq } from 'drizzle-orm';
import { Hono } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import * as v from 'valibot';
import type { Blobs } from '../blobs.ts';
import type { Database } from '../db/open.ts';
import { source } from '../db/schema.ts';
import { bodyOf } from '../input.ts';
import type { Pool } from '../pool/pool.ts';
import type { StoredSource } from '../pool/tasks.ts';
import { notFound } from '../problems.ts';

/** Room for the parts of a form around the file. */
const FORM_BYTES = 64 * 1024;

/** Longest side of a picture to look at, in pixels. */
const SCREEN_EDGE = 1024;

const tooLarge = () =>
  new Problem(
    'file_too_large',
    `The file is too large; at most ${LIMITS.bytes / 2 ** 20} MB are read.`,
    'Save it smaller, or crop it first.',
  );

/** The row of a source. @throws Problem `not_found`. */
export async function sourceRow(db: Database, sha256: string): Promise<typeof source.$inferSelect> {
  const row = await db.query.source.findFirst({ where: eq(source.sha256, sha256) });
  if (!row) throw notFound('picture');
  return row;
}

/** Checks a picture, stores it, and returns its row. The same bytes give the same row. */
export async function storeSource(
  db: Database,
  blobs: Blobs,
  pool: Pool,
  bytes: Uint8Array,
): Promise<typeof source.$inferSelect> {
  const facts = await readFacts(bytes);
  const sha256 = await blobs.put(bytes);
  const known = await db.query.source.findFirst({ where: eq(source.sha256, sha256) });
  if (known) return known;
  const { width, height } = facts;
  // A header can promise what the file does not hold: it is decoded once before it is taken.
  try {
    await pool.pixels({
      source: { sha256, width, height, path: blobs.path(sha256) },
      shortEdge: 64,
      as: 'data',
    });
  } catch (error) {
    await blobs.drop(sha256);
    throw error;
  }
  await db
    .insert(source)
    .values({ sha256, ...facts, bytes: bytes.length, createdAt: new Date() })
    .onConflictDoNothing();
  return sourceRow(db, sha256);
}

/** The pictures a recipe asks for beside its source, as they lie in the store. */
export const givenSources = (blobs: Blobs, recipe: Recipe): StoredSource[] =>
  Object.values(picturesOf(recipe)).map(({ sha256, width, height }) => ({
    sha256,
    width,
    height,
    path: blobs.path(sha256),
  }));

const PLAIN_EDGES = [256, 512, 1024, 2048, 4096] as const;
const plainSchema = v.strictObject({
  /** sRGB as #rrggbb. */
  hex: v.pipe(v.string(), v.regex(/^#[0-9a-f]{6}$/i, 'must be a colour such as #8a7f70')),
  edge: v.picklist(PLAIN_EDGES, `must be one of ${PLAIN_EDGES.join(', ')}`),
});

export const sourceRoutes = (db: Database, blobs: Blobs, pool: Pool) =>
  new Hono()
    .post(
      '/',
      bodyLimit({
        maxSize: LIMITS.bytes + FORM_BYTES,
        onError: () => {
          throw tooLarge();
        },
      }),
      async (c) => {
        const file = (await c.req.parseBody()).file;
        if (!(file instanceof File)) {
          throw new Problem(
            'bad_input',
            'No picture was sent.',
            'Send one as the form field “file”.',
            'file',
          );
        }
        const row = await storeSource(db, blobs, pool, new Uint8Array(await file.arrayBuffer()));
        return c.json({ source: row }, 201);
      },
    )
    .post('/plain', async (c) => {
      const { hex, edge } = await bodyOf(c, plainSchema);
      const row = await storeSource(db, blobs, pool, await plainPicture(hex, edge));
      return c.json({ source: row }, 201);
    })
    .get('/:sha256', async (c) => c.json({ source: await sourceRow(db, c.req.param('sha256')) }))
    .get('/:sha256/picture', async (c) => {
      const row = await sourceRow(db, c.req.param('sha256'));
      const { picture } = await pool.screen({
        source: { ...row, path: blobs.path(row.sha256) },
        edge: SCREEN_EDGE,
      });
      return c.body(picture as Uint8Array<ArrayBuffer>, 200, {
        'Content-Type': 'image/webp',
        'Cache-Control': 'private, max-age=31536000, immutable',
      });
    })
    .get('/:sha256/green', async (c) => {
      const row = await sourceRow(db, c.req.param('sha256'));
      const { green } = await pool.green({ source: { ...row, path: blobs.path(row.sha256) } });
      return c.json({ green });
    })
    .get('/:sha256/pixels', async (c) => {
      const row = await sourceRow(db, c.req.param('sha256'));
      const shortEdge = Number(c.req.query('edge'));
      if (!Number.isInteger(shortEdge) || shortEdge < 1) {
        throw new Problem(
          'bad_input',
          '“edge” must be a whole number of pixels.',
          'Ask for ?edge=512.',
          'edge',
        );
      }
      const { width, height, channels, bits, data } = await pool.pixels({
        source: { ...row, path: blobs.path(row.sha256) },
        shortEdge,
        as: c.req.query('as') === 'data' ? 'data' : 'colour',
      });
      return c.body(data as Uint8Array<ArrayBuffer>, 200, {
        'Content-Type': 'application/octet-stream',
        'Cache-Control': 'private, max-age=31536000, immutable',
        'X-Pixels': JSON.stringify({
          width,
          height,
          channels,
          bits,
          originalWidth: row.width,
          originalHeight: row.height,
        }),
      });
    });
