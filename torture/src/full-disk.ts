import { join } from 'node:path';
import { brokenDatabase, brokenSet, partsIn } from './check.ts';
import { ask, makeTile, smallRecipe, upload } from './client.ts';
import { noise } from './pictures.ts';
import { freePort, startServer } from './process.ts';
import { smallDisk } from './small-disk.ts';
import { Random, Score, type Tally, type TrialOptions, wait } from './trial.ts';

/** The most that measuring a tile may take on a slow machine, in ms. */
const LOOK_MS = 120_000;

/** What is asked of the server while its disk is full. */
const stepsOf = (url: string, at: string, random: Random) => ({
  upload: async () => upload(url, await noise(random, 200, 200).png().toBuffer()),
  version: async () => {
    const { body } = await ask(url, 'GET', at);
    return ask(url, 'POST', `${at}/revisions`, { base: body.revision?.number, recipe: smallRecipe() });
  },
  crate: () => ask(url, 'POST', `${at}/crates`),
  look: () => ask(url, 'GET', `${at}/look`, undefined, LOOK_MS),
  project: () => ask(url, 'POST', '/api/projects', { name: 'Full' }),
});

/** Takes every step on a full disk: what is broken, and the pictures that were accepted. */
async function stepsOnFullDisk(steps: ReturnType<typeof stepsOf>, score: Score) {
  const broken: string[] = [];
  const sources: string[] = [];
  for (const [name, step] of Object.entries(steps)) {
    const { status, body } = await step();
    if (status === null || (status >= 500 && body.error?.code !== 'disk_full')) {
      broken.push(`${name}: ${status} ${JSON.stringify(body)}`);
    }
    if (status === 507) score.count('refused');
    if (name === 'upload' && status === 201) sources.push(body.source.sha256);
  }
  return { broken, sources };
}

/** With room again: a version is saved, and every accepted picture is read. What is broken. */
async function withRoom(url: string, at: string, base: number, sources: string[]): Promise<string[]> {
  const broken: string[] = [];
  const saved = await ask(url, 'POST', `${at}/revisions`, { base, recipe: smallRecipe() });
  if (saved.status !== 201) broken.push(`with room again: ${saved.status} ${JSON.stringify(saved.body)}`);
  for (const sha256 of sources) {
    const pixels = await ask(url, 'GET', `/api/sources/${sha256}/pixels?edge=64`);
    if (pixels.status !== 200) broken.push(`an accepted picture answers ${pixels.status}`);
  }
  return broken;
}

/** Waits until every crate of a tile has ended by itself; what is broken of each. */
async function brokenCrates(url: string, at: string, data: string): Promise<string[][]> {
  const going = async () => {
    const { body } = await ask(url, 'GET', `${at}/crates`);
    return body.crates.filter(({ state }: { state: string }) => ['waiting', 'working'].includes(state));
  };
  for (let k = 0; k < 600 && (await going()).length > 0; k++) await wait(100);
  const { body } = await ask(url, 'GET', `${at}/crates`);
  const found: string[][] = [];
  for (const { id, state, message } of body.crates) {
    if (state === 'done') found.push(await brokenSet(join(data, 'crates', id)));
    else found.push(message ? [] : [`crate ${id} is ${state} without words`]);
  }
  return found;
}

/**
 * Fills the disk of the data folder before each step: upload, version, crate, and a restart. Each step may be refused in words; what
 * was acknowledged stays, and room heals everything.
 */
export async function fullDisk({ seed, count, folder }: TrialOptions): Promise<Tally> {
  const score = new Score('a full disk at every step');
  const random = new Random(seed);
  const disk = await smallDisk(folder, 96);
  if (!disk) {
    score.figures.skipped = 'only the system’s own user may mount a small disk';
    return score.tally();
  }
  const data = join(disk.path, 'data');
  const port = await freePort();
  const url = `http://127.0.0.1:${port}`;
  let server = await startServer({ data, port });
  try {
    const tileId = await makeTile(url, await noise(random, 64, 64).png().toBuffer());
    const at = `/api/tiles/${tileId}`;
    await ask(url, 'POST', `${at}/revisions`, { base: 1, recipe: smallRecipe() });
    const steps = stepsOf(url, at, random);
    for (let k = 0; k < count; k++) {
      await disk.fill(random.below(2) === 0 ? 0 : random.below(400_000));
      if (k % 5 === 4) {
        await server.kill(random.below(2) === 0 ? 'SIGKILL' : 'SIGTERM');
        server = await startServer({ data, port });
        score.count('restarts on a full disk');
        await disk.fill();
      }
      const { broken, sources } = await stepsOnFullDisk(steps, score);
      const { status, body } = await ask(url, 'GET', at);
      if (status !== 200) broken.push(`the tile is not read: ${status}`);
      await disk.empty();
      broken.push(...(await withRoom(url, at, body.revision?.number, sources)));
      score.note(...broken);
    }
    // Every crate ends by itself once there is room.
    for (const broken of await brokenCrates(url, at, data)) score.note(...broken);
    score.note(...(await brokenDatabase(data)), ...(await partsIn(data)));
  } finally {
    await server.kill();
    disk.unmount();
  }
  return score.tally();
}
