import { once } from 'node:events';
import { Readable } from 'node:stream';
import type { ReadableStream as NodeStream } from 'node:stream/web';
import { Problem } from '@zesty-tile/core';
import busboy from 'busboy';
import type { Context } from 'hono';
import type { Blobs, Incoming } from '../blobs.ts';
import { Budget } from '../budget.ts';

/** Bytes of files that are received at the same time. */
const AT_ONCE = 2 ** 30;
/** How long an upload waits for others, in ms. */
const PATIENCE_MS = 60_000;

const uploads = new Budget(AT_ONCE, { holders: 16, patienceMs: PATIENCE_MS });

const tooLarge = (most: number) =>
  new Problem(
    'file_too_large',
    `The file is too large; at most ${most / 2 ** 20} MB are read.`,
    'Save it smaller, or crop it first.',
  );

/** Room for the parts of a form around its file. */
const FORM_BYTES = 64 * 1024;

/** Waits for the upload's turn, by the length it states. @throws Problem `file_too_large`, `busy`. */
async function admitted<T>(c: Context, most: number, work: () => Promise<T>): Promise<T> {
  const stated = Number(c.req.header('content-length') ?? most);
  if (stated > most + FORM_BYTES) throw tooLarge(most);
  const release = await uploads.take(stated, c.req.raw.signal);
  try {
    return await work();
  } finally {
    release();
  }
}

const bodyStream = (c: Context): Readable =>
  c.req.raw.body ? Readable.fromWeb(c.req.raw.body as NodeStream) : Readable.from([]);

/** Reads on what is left of a refused body, so that its client hears why; one that does not end is cut off. */
async function drain(body: Readable, most: number): Promise<void> {
  let bytes = 0;
  try {
    for await (const chunk of body) {
      bytes += chunk.length;
      if (bytes > most) return;
    }
  } catch {
    // The client is gone.
  }
}

async function* bounded(stream: Readable, most: number): AsyncGenerator<Uint8Array> {
  let bytes = 0;
  for await (const chunk of stream.iterator({ destroyOnReturn: false })) {
    bytes += chunk.length;
    if (bytes > most) throw tooLarge(most);
    yield chunk;
  }
}

/** Receives the whole body of a request as a file. @throws Problem `file_too_large`, `busy`. */
export const receiveBody = (c: Context, blobs: Blobs, most: number): Promise<Incoming> =>
  admitted(c, most, async () => {
    const body = bodyStream(c);
    try {
      return await blobs.receive(bounded(body, most));
    } catch (error) {
      await drain(body, most);
      throw error;
    }
  });

const noFile = () =>
  new Problem('bad_input', 'No picture was sent.', 'Send one as the form field “file”.', 'file');
const badForm = () =>
  new Problem('bad_input', 'The form cannot be read.', 'Send the picture as multipart/form-data.', 'file');

/**
 * Receives the file in the field “file” of a form, written to disk as it comes: an upload never lies in memory.
 * @throws Problem `bad_input` where there is none, `file_too_large`, `busy`.
 */
export const receiveFile = (c: Context, blobs: Blobs, most: number): Promise<Incoming> =>
  admitted(c, most, async () => {
    let form: busboy.Busboy;
    try {
      form = busboy({
        headers: { 'content-type': c.req.header('content-type') },
        limits: { files: 1, fileSize: most + 1, fields: 4, parts: 6, fieldSize: 1024, headerPairs: 32 },
      });
    } catch {
      throw badForm();
    }
    let received: Promise<Incoming> | null = null;
    form.on('file', (field, file) => {
      if (field !== 'file') {
        file.resume();
        return;
      }
      // A form that is cut off cuts its file off too, whoever listens.
      file.on('error', () => {});
      received = blobs.receive(bounded(file, most));
      // It is awaited below. The rest of a refused file is read on, so that its client hears why.
      received.catch(() => file.resume());
    });
    const body = bodyStream(c);
    const ended = once(form, 'close');
    body.on('error', (error) => form.destroy(error));
    body.pipe(form);
    const broken = await ended.then(
      () => null,
      () => badForm(),
    );
    if (!received) throw broken ?? noFile();
    const incoming: Incoming = await (received as Promise<Incoming>).catch((error: Error) => {
      // A form that was cut off cuts its file off too; any other error is the file's own.
      throw /^Unexpected end/.test(error.message) ? badForm() : error;
    });
    if (!broken) return incoming;
    await incoming.drop();
    throw broken;
  });
