import { join } from 'node:path';
import { type Answer, ask, makeTile, smallRecipe, upload } from './client.ts';
import { noise } from './pictures.ts';
import { freePort, startServer } from './process.ts';
import { Random, Score, type Tally, type TrialOptions } from './trial.ts';

const CLIENTS = 100;
/** A client waits this long between two requests on average, as a window does whose tile is being changed, in ms. */
const PAUSE_MS = 1000;
/** 99 of 100 lists and versions are answered within, in ms, on two idle cores. */
const P99_MS = 500;
/** The shortest trial whose times say something, in seconds. */
const TIMED_SECONDS = 30;

const percentile = (times: number[], share: number): number =>
  [...times].sort((a, b) => a - b)[Math.min(times.length - 1, Math.floor(share * times.length))] ?? 0;

/** A hundred clients list tiles, save versions and upload pictures for `count` seconds. No request may fail. */
export async function load({ seed, count, folder }: TrialOptions): Promise<Tally> {
  const score = new Score(`${CLIENTS} clients for ${count} s`);
  const port = await freePort();
  const url = `http://127.0.0.1:${port}`;
  const server = await startServer({ data: join(folder, 'data'), port });
  const random = new Random(seed);
  const picture = await noise(random, 64, 64).png().toBuffer();
  const times: Record<string, number[]> = { list: [], version: [], upload: [] };
  const client = async (k: number, tile: string, until: number) => {
    const own = new Random(seed + 1 + k);
    const note = (kind: string, { status, body, ms }: Answer, expected: number) => {
      times[kind].push(ms);
      score.note(...(status === expected ? [] : [`${kind}: ${status} ${JSON.stringify(body)}`]));
    };
    for (let base = 1; performance.now() < until; ) {
      await new Promise((resolve) => setTimeout(resolve, 2 * PAUSE_MS * own.next()));
      const kind = own.below(10);
      if (kind === 0) note('upload', await upload(url, await noise(own, 64, 64).png().toBuffer()), 201);
      else if (kind < 5) note('list', await ask(url, 'GET', '/api/tiles'), 200);
      else {
        const body = { base, recipe: smallRecipe(base) };
        note('version', await ask(url, 'POST', `/api/tiles/${tile}/revisions`, body), 201);
        base++;
      }
    }
  };
  try {
    const tiles: string[] = [];
    for (let k = 0; k < CLIENTS; k++) tiles.push(await makeTile(url, picture, `Client ${k}`));
    const until = performance.now() + 1000 * count;
    await Promise.all(tiles.map((tile, k) => client(k, tile, until)));
    for (const [kind, all] of Object.entries(times)) {
      score.figures[`p99 of ${kind}`] = `${percentile(all, 0.99).toFixed(0)} ms`;
    }
    for (const kind of count >= TIMED_SECONDS ? ['list', 'version'] : []) {
      const p99 = percentile(times[kind], 0.99);
      score.note(...(p99 <= P99_MS ? [] : [`p99 of ${kind} is ${p99.toFixed(0)} ms`]));
    }
  } finally {
    await server.kill();
  }
  return score.tally();
}
