import { join } from 'node:path';
import sharp from 'sharp';
import { ask, upload } from './client.ts';
import { freePort, startServer } from './process.ts';
import { Score, type Tally, type TrialOptions, wait } from './trial.ts';

const GB = 2 ** 30;
const MOST_UNDER = 4 * GB;
const MOST_IDLE = 1.5 * GB;
/** Threads without work drop what they keep after fifteen seconds. */
const IDLE_MS = 22_000;

/**
 * Uploads small files that unpack to very large pictures, one by one and together, and asks for their samples: the memory of the
 * server must stay below 4 GB, and fall below 1.5 GB when it is idle.
 */
export async function largePictures({ count, folder }: TrialOptions): Promise<Tally> {
  const score = new Score('small files of large pictures');
  const port = await freePort();
  const url = `http://127.0.0.1:${port}`;
  const server = await startServer({ data: join(folder, 'data'), port });
  const file = async (k: number) => {
    const create = { width: 10_900 - k, height: 10_900, channels: 4 as const, background: '#88776655' };
    return sharp({ create }).png({ compressionLevel: 9 }).toBuffer();
  };
  const tryOne = async (bytes: Buffer) => {
    // Decoding may take longer than an answer otherwise may.
    const form = new FormData();
    form.append('file', new File([new Uint8Array(bytes)], 'large.png'));
    const response = await fetch(`${url}/api/sources`, { method: 'POST', body: form });
    const body = await response.json();
    if (response.status !== 201) return score.note(`${response.status} ${JSON.stringify(body)}`);
    const samples = await fetch(`${url}/api/sources/${body.source.sha256}/pixels?edge=1024`);
    await samples.arrayBuffer();
    score.note(...(samples.status === 200 ? [] : [`samples: ${samples.status}`]));
  };
  try {
    for (let k = 0; k < count; k++) await tryOne(await file(k));
    const files = await Promise.all(Array.from({ length: Math.min(4, count) }, (_, k) => file(100 + k)));
    await Promise.all(files.map(tryOne));
    const { most } = await server.memory();
    await wait(IDLE_MS);
    const { now } = await server.memory();
    score.figures['most memory'] = `${(most / GB).toFixed(2)} GB`;
    score.figures['idle memory'] = `${(now / GB).toFixed(2)} GB`;
    score.note(...(most > MOST_UNDER ? ['more than 4 GB under the trial'] : []));
    score.note(...(now > MOST_IDLE ? ['more than 1.5 GB when idle'] : []));
    score.note(...((await ask(url, 'GET', '/api/health')).status === 200 ? [] : ['health does not answer']));
    score.note(...((await upload(url, new Uint8Array(3))).status === 422 ? [] : ['no uploads any more']));
  } finally {
    await server.kill();
  }
  return score.tally();
}
