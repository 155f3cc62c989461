import { mkdtemp, rm } from 'node:fs/promises';
import { request } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type ServeOptions, serve } from '@zesty-tile/server';
import { picture } from '../../codecs/test/pictures.ts';

/** A server on a free port over a folder of its own. */
export async function startServer(
  folder?: string,
  more: Partial<Pick<ServeOptions, 'host' | 'redis' | 'shared' | 'web' | 'workers'>> = {},
) {
  const data = folder ?? (await mkdtemp(join(tmpdir(), 'zesty-')));
  const errors: unknown[] = [];
  const running = await serve({
    data,
    host: '127.0.0.1',
    port: 0,
    web: null,
    log: (error) => errors.push(error),
    ...more,
  });
  const ask = async (
    method: string,
    path: string,
    body?: unknown,
    // biome-ignore lint/suspicious/noExplicitAny: answers are read as they come
  ): Promise<{ status: number; body: any }> => {
    const response = await fetch(running.url + path, {
      method,
      headers: body === undefined || body instanceof FormData ? {} : { 'Content-Type': 'application/json' },
      body: body === undefined ? undefined : body instanceof FormData ? body : JSON.stringify(body),
    });
    return { status: response.status, body: await response.json() };
  };
  const upload = (bytes: Uint8Array, name = 'photo.png') => {
    const form = new FormData();
    form.append('file', new File([new Uint8Array(bytes)], name));
    return ask('POST', '/api/sources', form);
  };
  const makeTile = async (name = 'Trial') => {
    const { body: given } = await upload(await picture(400, 320).png().toBuffer());
    const { body: made } = await ask('POST', '/api/projects', { name: 'Trials' });
    const { body } = await ask('POST', '/api/tiles', {
      projectId: made.project.id,
      name,
      sourceSha256: given.source.sha256,
      sourceName: 'photo.png',
    });
    return body.tile as { id: string; name: string };
  };
  return {
    ...running,
    data,
    errors,
    ask,
    upload,
    makeTile,
    end: async () => {
      await running.close();
      if (!folder) await rm(data, { recursive: true, force: true });
    },
  };
}

export type TestServer = Awaited<ReturnType<typeof startServer>>;

/** A request whose Host and other headers are what the test says. */
export function rawStatus(url: string, headers: Record<string, string>, method = 'GET'): Promise<number> {
  return new Promise((resolve, reject) => {
    const asked = request(url, { method, headers }, (response) => {
      resolve(response.statusCode ?? 0);
      asked.destroy();
    });
    asked.once('error', reject);
    // With a length announced nothing follows: the answer must come without it.
    if ('Content-Length' in headers) asked.flushHeaders();
    else asked.end();
  });
}
