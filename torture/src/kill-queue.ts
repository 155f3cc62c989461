import { join } from 'node:path';
import { brokenSet, partsIn } from './check.ts';
import { ask, makeTile, smallRecipe } from './client.ts';
import { noise } from './pictures.ts';
import { freePort, type Subject, startRedis, startServer, startZesty } from './process.ts';
import { Random, Score, type Tally, type TrialOptions, wait } from './trial.ts';

/** A server over a queue in Redis, and a tile whose crates it makes. */
async function setUp(folder: string, random: Random, workers: number) {
  const [port, redisPort] = [await freePort(), await freePort()];
  const redisUrl = `redis://127.0.0.1:${redisPort}`;
  const shared = join(folder, 'shared');
  const redis = await startRedis(redisPort, folder);
  const env = { ZESTY_REDIS: redisUrl, ZESTY_SHARED: shared, ZESTY_WORKERS: String(workers) };
  const server = await startServer({ data: join(folder, 'data'), port, env });
  const url = `http://127.0.0.1:${port}`;
  const tileId = await makeTile(url, await noise(random, 64, 64).png().toBuffer());
  await ask(url, 'POST', `/api/tiles/${tileId}/revisions`, { base: 1, recipe: smallRecipe() });
  return { url, redis, redisPort, redisUrl, shared, server, tileId };
}

const startCrates = async (url: string, tileId: string, count: number): Promise<string[]> => {
  const ids: string[] = [];
  for (let k = 0; k < count; k++) {
    const { status, body } = await ask(url, 'POST', `/api/tiles/${tileId}/crates`);
    if (status === 202) ids.push(body.crate.id);
  }
  return ids;
};

/** Waits until crates have ended, and tells what is wrong with them. A crate given up after many kills says so and is run again. */
async function brokenCrates(url: string, shared: string, ids: readonly string[]): Promise<string[]> {
  const broken: string[] = [];
  for (const id of ids) {
    const until = performance.now() + 120_000;
    let state = '';
    while (state !== 'done' && performance.now() < until) {
      const { body } = await ask(url, 'GET', `/api/crates/${id}`);
      state = body.crate?.state ?? 'lost';
      if (state === 'failed' && /stalled/.test(body.crate.message))
        await ask(url, 'POST', `/api/crates/${id}/retry`);
      else if (state === 'failed' || state === 'lost') break;
      if (state !== 'done') await wait(100);
    }
    if (state === 'done') broken.push(...(await brokenSet(join(shared, 'crates', id))));
    else broken.push(`crate ${id} is ${state}`);
  }
  return broken;
}

/** Kills the worker of a shared queue while it makes crates: others make them, each whole. */
export async function killWorker({ seed, count, folder }: TrialOptions): Promise<Tally> {
  const score = new Score('kills of crate workers');
  const random = new Random(seed);
  const { url, redis, redisUrl, shared, server, tileId } = await setUp(folder, random, 0);
  const startWorker = async (): Promise<Subject> => {
    const worker = startZesty(['worker', '--redis', redisUrl, '--shared', shared, '--workers', '1']);
    await worker.said(/Working with 1 threads/);
    return worker;
  };
  const waiting: string[] = [];
  for (let k = 1; k <= count; k++) {
    waiting.push(...(await startCrates(url, tileId, 1)));
    const worker = await startWorker();
    await wait(2500 * random.next());
    await worker.kill();
    if (k % 10 !== 0 && k !== count) {
      score.note();
      continue;
    }
    const last = await startWorker();
    score.note(...(await brokenCrates(url, shared, waiting)));
    await last.kill('SIGTERM');
    score.count('crates', waiting.length);
    waiting.length = 0;
  }
  await server.kill('SIGTERM');
  await redis.kill();
  score.note(...(await partsIn(join(shared, 'blobs'))));
  return score.tally();
}

/** Kills the Redis of a shared queue, which keeps nothing on disk: no crate is lost. */
export async function killRedis({ seed, count, folder }: TrialOptions): Promise<Tally> {
  const score = new Score('kills of Redis');
  const random = new Random(seed);
  const { url, redisPort, shared, server, tileId, ...first } = await setUp(folder, random, 1);
  let { redis } = first;
  for (let k = 0; k < count; k++) {
    const ids = await startCrates(url, tileId, 3);
    await wait(1200 * random.next());
    await redis.kill();
    ids.push(...(await startCrates(url, tileId, 1)));
    await wait(500 * random.next());
    redis = await startRedis(redisPort, folder);
    score.note(
      ...(ids.length === 4 ? [] : ['a crate was not accepted']),
      ...(await brokenCrates(url, shared, ids)),
    );
    score.count('crates', ids.length);
  }
  await server.kill('SIGTERM');
  await redis.kill();
  return score.tally();
}
