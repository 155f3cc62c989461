import { join } from 'node:path';
import { ask, upload } from './client.ts';
import { mutated } from './mutate.ts';
import { wholeFiles } from './pictures.ts';
import { freePort, startServer } from './process.ts';
import { Random, Score, type Tally, type TrialOptions } from './trial.ts';

/** The most memory the server may have under the trial, in bytes. */
const CEILING = 4 * 2 ** 30;
const AT_ONCE = 4;

/**
 * Sends seeded mutations of every format to a real server. It must answer each within ten seconds, accept it or refuse it in
 * words, and stay below its memory.
 */
export async function hostileFiles({ seed, count, folder }: TrialOptions): Promise<Tally> {
  const score = new Score('mutated pictures');
  const random = new Random(seed);
  const files = Object.entries(await wholeFiles(random));
  const port = await freePort();
  const url = `http://127.0.0.1:${port}`;
  const server = await startServer({ data: join(folder, 'data'), port });
  const send = (name: string, bytes: Uint8Array) =>
    name.endsWith('.hdr') ? ask(url, 'POST', '/api/surroundings?name=sky', bytes) : upload(url, bytes, name);
  const tryOne = async () => {
    const [name, whole] = random.pick(files);
    const { how, bytes } = mutated(name, whole, random);
    const what = `${how} of ${name} (${bytes.length} bytes)`;
    const { status, body, hung } = await send(name, bytes);
    if (hung) score.note(`${what}: no answer within ten seconds`);
    else if (status === null) score.note(`${what}: ${body}`);
    else if (status >= 500) score.note(`${what}: ${status} ${JSON.stringify(body)}`);
    else if (status >= 400 && !body.error?.hint) score.note(`${what}: ${status} without words`);
    else score.note();
    score.count(status === 201 ? 'accepted' : 'refused');
  };
  try {
    for (const [name, whole] of files) {
      const { status, body } = await send(name, whole);
      score.note(...(status === 201 ? [] : [`${name}, whole: ${status} ${JSON.stringify(body)}`]));
    }
    for (let done = 0; done < count && server.isRunning; done += AT_ONCE) {
      await Promise.all(Array.from({ length: Math.min(AT_ONCE, count - done) }, tryOne));
    }
    for (const [name, whole] of files) {
      const { status } = await send(name, whole);
      score.note(...(status === 201 ? [] : [`${name}, whole, at the end: ${status}`]));
    }
    if (!server.isRunning) score.note(`the server ended: ${server.output}`);
    const { most } = await server.memory();
    score.figures['most memory'] = `${(most / 2 ** 30).toFixed(2)} GB`;
    if (most > CEILING) score.note(`memory rose to ${most} bytes`);
    const { status } = await ask(url, 'GET', '/api/health');
    if (status !== 200) score.note(`health answers ${status}`);
  } finally {
    await server.kill();
  }
  return score.tally();
}
