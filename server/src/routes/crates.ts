import { createReadStream } from 'node:fs';
import { open } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { Problem } from '@zesty-tile/core';
import { makeZip } from 'client-zip';
import { Hono } from 'hono';
import { streamSSE } from 'hono/streaming';
import { type Crates, hasEnded } from '../crates/crates.ts';

const attachment = (name: string) => `attachment; filename*=UTF-8''${encodeURIComponent(name)}`;

const fileStream = (path: string) => Readable.toWeb(createReadStream(path)) as ReadableStream<Uint8Array>;

export const crateRoutes = (crates: Crates) =>
  new Hono()
    .get('/', async (c) => c.json({ crates: await crates.all() }))
    .get('/:id', async (c) => {
      const job = await crates.get(c.req.param('id'));
      const files = await crates.files(job.id);
      return c.json({ crate: job, files: files.map(({ name, bytes, sha256 }) => ({ name, bytes, sha256 })) });
    })
    .get('/:id/events', async (c) => {
      const id = c.req.param('id');
      await crates.get(id);
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
    })
    .post('/:id/stop', async (c) => c.json({ crate: await crates.stop(c.req.param('id')) }))
    .get('/:id/files/:name', async (c) => {
      const name = c.req.param('name');
      const path = await crates.filePath(c.req.param('id'), name);
      return c.body(fileStream(path), 200, {
        'Content-Type': name.endsWith('.png') ? 'image/png' : 'application/json',
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
      const files = await crates.files(job.id);
      const entries = await Promise.all(
        files.map(async ({ name, bytes }) => {
          const path = await crates.filePath(job.id, name);
          // Opened first, so that a file that vanished is an answer and not half a zip.
          await (await open(path)).close();
          return { name, size: bytes, lastModified: job.endedAt ?? new Date(), path };
        }),
      );
      const lazy = async function* () {
        for (const { path, ...entry } of entries) yield { ...entry, input: fileStream(path) };
      };
      return c.body(makeZip(lazy()), 200, {
        'Content-Type': 'application/zip',
        'Content-Disposition': attachment(`${job.name} ${job.number}.zip`),
      });
    });
