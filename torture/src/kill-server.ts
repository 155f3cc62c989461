import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { brokenDatabase, brokenSet, partsIn } from './check.ts';
import { type Answer, ask, makeTile, smallRecipe, upload } from './client.ts';
import { noise } from './pictures.ts';
import { freePort, startServer } from './process.ts';
import { Random, Score, type Tally, type TrialOptions, wait } from './trial.ts';

/** Longest time between the start of the work and the kill, in ms. */
const LONGEST_MS = 3000;

/** Everything the server said it has. */
class Acknowledged {
  readonly sources = new Set<string>();
  /** Number of each revision that was acknowledged, and the seed of its recipe. */
  readonly revisions = new Map<number, number>();
  readonly crates = new Set<string>();
}

/** Changes one tile and uploads pictures until the server is gone. */
async function work(url: string, tileId: string, random: Random, known: Acknowledged): Promise<void> {
  const isGone = ({ status }: Answer) => status === null;
  const uploads = async () => {
    for (;;) {
      const answer = await upload(url, await noise(random, 40, 40).png().toBuffer());
      if (isGone(answer)) return;
      if (answer.status === 201) known.sources.add(answer.body.source.sha256);
    }
  };
  const revisions = async () => {
    for (;;) {
      const tile = await ask(url, 'GET', `/api/tiles/${tileId}`);
      if (isGone(tile)) return;
      const seed = random.below(1e9);
      const base = tile.body.revision.number;
      const recipe = smallRecipe(seed);
      const answer = await ask(url, 'POST', `/api/tiles/${tileId}/revisions`, { base, recipe });
      if (isGone(answer)) return;
      if (answer.status === 201) known.revisions.set(answer.body.revision.number, seed);
    }
  };
  const crates = async () => {
    for (;;) {
      const answer = await ask(url, 'POST', `/api/tiles/${tileId}/crates`);
      if (isGone(answer)) return;
      if (answer.status === 202) known.crates.add(answer.body.crate.id);
      await wait(150);
    }
  };
  await Promise.all([uploads(), revisions(), crates()]);
}

/** What was acknowledged and is not there, or not whole. */
async function missing(url: string, data: string, tileId: string, known: Acknowledged): Promise<string[]> {
  const broken: string[] = [];
  for (const sha256 of known.sources) {
    const { status } = await ask(url, 'GET', `/api/sources/${sha256}/pixels?edge=32`);
    if (status !== 200) broken.push(`picture ${sha256} answers ${status}`);
  }
  for (const [number, seed] of known.revisions) {
    const { body } = await ask(url, 'GET', `/api/tiles/${tileId}/revisions/${number}`);
    if (body.revision?.recipe.seed !== seed) broken.push(`version ${number} is not the one that was saved`);
  }
  for (const id of known.crates) {
    const { status, body } = await ask(url, 'GET', `/api/crates/${id}`);
    if (status !== 200) broken.push(`crate ${id} answers ${status}`);
    else if (body.crate.state === 'done') broken.push(...(await brokenSet(join(data, 'crates', id))));
    else if (body.crate.state === 'failed') broken.push(`crate ${id} failed: ${body.crate.message}`);
  }
  return broken;
}

/**
 * Kills a real server at random moments while it takes uploads, versions and crates. After each restart everything it
 * acknowledged must be there, and nothing unfinished.
 */
export async function killServer({ seed, count, folder }: TrialOptions): Promise<Tally> {
  const score = new Score('kills of the server');
  const random = new Random(seed);
  const data = join(folder, 'data');
  const port = await freePort();
  const url = `http://127.0.0.1:${port}`;
  let server = await startServer({ data, port });
  const name = `Killed ${randomUUID().slice(0, 8)}`;
  let tileId = await makeTile(url, await noise(random, 64, 64).png().toBuffer(), name);
  for (let k = 0; k < count; k++) {
    // A tile of many hundred versions and crates would slow the trial down.
    if (k % 20 === 19) tileId = await makeTile(url, await noise(random, 64, 64).png().toBuffer(), name);
    const known = new Acknowledged();
    const working = work(url, tileId, random, known);
    await wait(LONGEST_MS * random.next());
    await server.kill();
    await working;
    const broken = await brokenDatabase(data);
    server = await startServer({ data, port });
    broken.push(...(await missing(url, data, tileId, known)));
    // Work that goes on has parts of its own; those of processes that are gone may not be left.
    const own = `-${server.child.pid}-`;
    broken.push(...(await partsIn(data)).filter((name) => !name.includes(own)));
    score.note(...broken);
    score.count('uploads', known.sources.size);
    score.count('versions', known.revisions.size);
    score.count('crates', known.crates.size);
  }
  await server.kill();
  return score.tally();
}
