import { createReadStream } from 'node:fs';
import { open } from 'node:fs/promises';
import { Readable } from 'node:stream';
import type { HttpBindings } from '@hono/node-server';
import { Problem } from '@zesty-tile/core';
import { makeZip } from 'client-zip';
import { type Context, Hono } from 'hono';
import { streamSSE } from 'hono/streaming';
import * as v from 'valibot';
import type { Blobs } from '../blobs.ts';
import { type Crates, MOVES } from '../crates/crates.ts';
import { openRecipe, openSet } from '../crates/open.ts';
import { type CrateJob, hasEnded } from '../crates/states.ts';
import type { Database } from '../db/open.ts';
import { crateJob } from '../db/schema.ts';
import { removal } from '../http/removal.ts';
import { bodyOf } from '../input.ts';
import { enterStream } from '../network/streams.ts';
import type { Pool } from '../pool/pool.ts';
import { newestRevision } from '../store/revisions.ts';
import { tileRow } from '../store/tiles.ts';

const attachment = (name: string) => `attachment; filename*=UTF-8''${encodeURIComponent(name)}`;

const fileStream = (path: string) => Readable.toWeb(createReadStream(path)) as ReadableStream<Uint8Array>;

const severalSchema = v.strictObject({
  tiles: v.pipe(
    v.array(v.string()),
    v.minLength(1, 'Name at least one tile.'),
    v.maxLength(500, 'At most 500 tiles are crated at once.'),
  ),
});
const moveSchema = v.strictObject({ to: v.picklist(MOVES, `is one of ${MOVES.join(', ')}`) });
const openSchema = v.strictObject({ as: v.picklist(['recipe', 'set'], 'is recipe or set') });

const KINDS: Record<string, string> = {
  png: 'image/png',
  jpg: 'image/jpeg',
  webp: 'image/webp',
  tif: 'image/tiff',
  glb: 'model/gltf-binary',
  mtlx: 'application/xml',
  ktx2: 'image/ktx2',
  json: 'application/json',
};

/** How a crate goes on, as a stream of events. */
const eventRoutes = (crates: Crates) =>
  new Hono<{ Bindings: HttpBindings }>().get('/:id/events', async (c) => {
    const id = c.req.param('id');
    await crates.get(id);
    const leave = enterStream(c.env.incoming.socket.remoteAddress ?? '');
    c.env.outgoing.once('close', leave);
    if (c.env.outgoing.closed) leave();
    return streamSSE(c, async (stream) => {
      let wake = () => {};
      const unwatch = crates.watch(id, () => wake());
      stream.onAbort(() => wake());
      try {
        while (!stream.aborted) {
          const moved = new Promise<void>((resolve) => {
            wake = resolve;
          });
          const job = await crates.get(id);
          await stream.writeSSE({ event: 'crate', data: JSON.stringify(job) });
          if (hasEnded(job)) return;
          await moved;
        }
      } finally {
        unwatch();
      }
    });
  });

interface Entry {
  name: string;
  size: number;
  lastModified: Date;
  path: string;
}

/** What a crate puts into an archive. Each file is opened first: one that vanished is an answer, not half a zip. */
const entriesOf = async (crates: Crates, job: CrateJob): Promise<Entry[]> =>
  Promise.all(
    (await crates.files(job.id)).map(async ({ name, bytes }) => {
      const path = await crates.filePath(job.id, name);
      await (await open(path)).close();
      return { name, size: bytes, lastModified: job.endedAt ?? new Date(), path };
    }),
  );

/** Sends files as one archive, each read when its turn comes. */
function archive(c: Context, entries: readonly Entry[], name: string) {
  const lazy = async function* () {
    for (const { path, ...entry } of entries) yield { ...entry, input: fileStream(path) };
  };
  return c.body(makeZip(lazy()), 200, {
    'Content-Type': 'application/zip',
    'Content-Disposition': attachment(name),
  });
}

/** The files of a crate, each by itself or all in one archive. */
const fileRoutes = (crates: Crates) =>
  new Hono()
    .get('/:id/files/:name', async (c) => {
      const name = c.req.param('name');
      const path = await crates.filePath(c.req.param('id'), name);
      return c.body(fileStream(path), 200, {
        'Content-Type': KINDS[name.split('.').pop() ?? ''] ?? 'application/octet-stream',
        'Content-Disposition': attachment(name),
      });
    })
    .get('/:id/archive.zip', async (c) => {
      const job = await crates.get(c.req.param('id'));
      if (job.state !== 'done') {
        throw new Problem(
          'not_ready',
          `The crate is ${job.state}; it holds no files.`,
          'Wait for it, or run it again.',
        );
      }
      return archive(c, await entriesOf(crates, job), `${job.name} ${job.number}.zip`);
    });

/** The newest crates of several tiles in one archive, each in a folder of its own. */
const togetherRoutes = (crates: Crates) =>
  new Hono().get('/archive.zip', async (c) => {
    const tiles = c.req.queries('tile') ?? [];
    const done = (await crates.all()).filter(
      ({ tileId, state }) => state === 'done' && tiles.includes(tileId),
    );
    const newest = tiles.flatMap((id) =>
      done
        .filter(({ tileId }) => tileId === id)
        .sort((a, b) => b.number - a.number)
        .slice(0, 1),
    );
    if (newest.length === 0) {
      throw new Problem('not_ready', 'None of these tiles has a finished crate.', 'Crate them first.');
    }
    const entries = await Promise.all(
      newest.map(async (job) =>
        (await entriesOf(crates, job)).map((entry) => ({
          ...entry,
          name: `${job.name} ${job.number}/${entry.name}`,
        })),
      ),
    );
    return archive(c, entries.flat(), `${newest.length} crates.zip`);
  });

/** Crates of all tiles: made, moved in the queue, stopped and opened again. */
export const crateRoutes = (db: Database, blobs: Blobs, pool: Pool, crates: Crates) =>
  new Hono<{ Bindings: HttpBindings }>()
    .route('/', togetherRoutes(crates))
    .get('/', async (c) => c.json({ crates: await crates.all() }))
    .post('/', async (c) => {
      const { tiles } = await bodyOf(c, severalSchema);
      const started = [];
      for (const id of new Set(tiles)) {
        const row = await tileRow(db, id);
        started.push(await crates.start(row, await newestRevision(db, id)));
      }
      return c.json({ crates: started }, 202);
    })
    .get('/:id', async (c) => {
      const job = await crates.get(c.req.param('id'));
      const files = await crates.files(job.id);
      const contents: Record<string, string[]> = {};
      if (job.state === 'done') {
        const manifest = await crates.manifest(job.id).catch(() => null);
        for (const one of manifest?.files ?? []) contents[one.file] = one.contents;
      }
      return c.json({
        crate: job,
        /** Where it lies on the server's disk. */
        folder: crates.folderOf(job.id),
        files: files.map(({ name, bytes, sha256 }) => ({ name, bytes, sha256 })),
        contents,
      });
    })
    .get('/:id/recipe', async (c) => {
      const { id, tileId, number } = await crates.get(c.req.param('id'));
      const { recipe } = await crates.manifest(id);
      return c.json({ crate: { tileId, number }, recipe: recipe as unknown as Record<string, unknown> });
    })
    .post('/:id/retry', async (c) => c.json({ crate: await crates.retry(c.req.param('id')) }, 202))
    .post('/:id/move', async (c) => {
      const { to } = await bodyOf(c, moveSchema);
      return c.json({ crate: await crates.move(c.req.param('id'), to) });
    })
    .post('/:id/open', async (c) => {
      const { as } = await bodyOf(c, openSchema);
      const job = await crates.get(c.req.param('id'));
      const manifest = await crates.manifest(job.id);
      const tileId =
        as === 'recipe'
          ? await openRecipe(db, job.tileId, manifest)
          : await openSet(db, blobs, pool, job, manifest, crates.folderOf(job.id));
      return c.json({ tileId }, 201);
    })
    .route('/', removal(db, crateJob, 'crate'))
    .post('/:id/stop', async (c) => c.json({ crate: await crates.stop(c.req.param('id')) }))
    .route('/', eventRoutes(crates))
    .route('/', fileRoutes(crates));
