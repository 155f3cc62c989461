import type { HttpBindings } from '@hono/node-server';
import { LIMITS, plainPicture } from '@zesty-tile/codecs';
import { Problem, reductionFor } from '@zesty-tile/core';
import { type Context, Hono } from 'hono';
import * as v from 'valibot';
import type { Blobs } from '../blobs.ts';
import { Budget } from '../budget.ts';
import type { Database } from '../db/open.ts';
import { receiveFile } from '../http/receive.ts';
import { bodyOf } from '../input.ts';
import type { Pool } from '../pool/pool.ts';
import { sourceRow, storeIncoming, storeSource } from '../store/sources.ts';

/** Longest side of a picture to look at, in pixels. */
const SCREEN_EDGE = 1024;

/** The channel that is asked for, as a number from 0; null where none is. */
function channelIn(value: string | undefined): number | null {
  if (value === undefined) return null;
  if (/^[0-3]$/.test(value)) return Number(value);
  throw new Problem('bad_input', '“channel” must be 0, 1, 2 or 3.', 'Ask for ?channel=0.', 'channel');
}

/** How large a picture to look at may be, in pixels. */
const edgeIn = (value: string | undefined): number =>
  value !== undefined && /^\d{2,4}$/.test(value) ? Math.min(SCREEN_EDGE, Number(value)) : SCREEN_EDGE;

/** Bytes of samples that are being sent at the same time. */
const SENT_BYTES = 2 ** 29;
/** How long a request for samples waits for others, in ms. */
const PATIENCE_MS = 120_000;

const sent = new Budget(SENT_BYTES, { patienceMs: PATIENCE_MS });

/** Reserves the memory of an answer until it has been sent, or its connection is gone. */
async function reserve(c: Context<{ Bindings: HttpBindings }>, bytes: number): Promise<void> {
  const release = await sent.take(bytes, c.req.raw.signal);
  c.env.outgoing.once('close', release);
  if (c.env.outgoing.closed) release();
}

const PLAIN_EDGES = [256, 512, 1024, 2048, 4096] as const;
const plainSchema = v.strictObject({
  /** sRGB as #rrggbb. */
  hex: v.pipe(v.string(), v.regex(/^#[0-9a-f]{6}$/i, 'must be a colour such as #8a7f70')),
  edge: v.picklist(PLAIN_EDGES, `must be one of ${PLAIN_EDGES.join(', ')}`),
});

export const sourceRoutes = (db: Database, blobs: Blobs, pool: Pool) =>
  new Hono<{ Bindings: HttpBindings }>()
    .post('/', async (c) => {
      const row = await storeIncoming(db, pool, await receiveFile(c, blobs, LIMITS.bytes));
      return c.json({ source: row }, 201);
    })
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
        edge: edgeIn(c.req.query('edge')),
        channel: channelIn(c.req.query('channel')),
      });
      return c.body(picture as Uint8Array<ArrayBuffer>, 200, {
        'Content-Type': 'image/webp',
        'Cache-Control': 'private, max-age=31536000, immutable',
      });
    })
    .get('/:sha256/content', async (c) => {
      const row = await sourceRow(db, c.req.param('sha256'));
      const { content } = await pool.content({ source: { ...row, path: blobs.path(row.sha256) } });
      return c.json({ content });
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
      const factor = reductionFor(row, shortEdge);
      const samples = Math.ceil(row.width / factor) * Math.ceil(row.height / factor) * 4;
      await reserve(c, samples * (row.bits === 32 ? 4 : 2));
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
