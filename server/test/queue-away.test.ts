import type { ChildProcess } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from 'chai';
import { freePort } from '../../torture/src/process.ts';
import { startServer, type TestServer } from './client.ts';
import { follow, smallRecipe } from './crating.ts';
import { startRedis } from './redis.ts';

describe('a Redis that goes away', () => {
  let folder = '';
  let port = 0;
  let server: TestServer;
  let redis: ChildProcess | null = null;
  let tileId = '';

  const killed = (child: ChildProcess) =>
    new Promise<void>((resolve) => {
      child.once('exit', () => resolve());
      child.kill('SIGKILL');
    });
  /** Asks, and how long the answer took, in ms. */
  const timed = async (method: string, path: string) => {
    const before = performance.now();
    return { ...(await server.ask(method, path)), ms: performance.now() - before };
  };
  const crateId = async () =>
    (await server.ask('POST', `/api/tiles/${tileId}/crates`)).body.crate.id as string;

  before(async () => {
    folder = await mkdtemp(join(tmpdir(), 'zesty-away-'));
    port = await freePort();
    const options = { redis: `redis://127.0.0.1:${port}`, shared: join(folder, 'shared'), workers: 1 };
    server = await startServer(join(folder, 'data'), options);
    const tile = await server.makeTile();
    tileId = tile.id;
    await server.ask('POST', `/api/tiles/${tileId}/revisions`, { base: 1, recipe: smallRecipe() });
  });
  after(async () => {
    await server?.end();
    redis?.kill('SIGKILL');
    await rm(folder, { recursive: true, force: true });
  });

  it('does not keep the server from starting, and is answered for in words within two seconds', async () => {
    const health = await timed('GET', '/api/health');
    expect([health.status, health.body.ok, health.body.queue]).to.deep.equal([503, false, false]);
    const { status, body, ms } = await timed('POST', `/api/tiles/${tileId}/crates`);
    expect([status, body.crate.state]).to.deep.equal([202, 'waiting']);
    expect(body.crate.message).to.equal('The queue does not answer; this crate starts when it is back.');
    expect(ms).to.be.below(2000);
    for (const path of [`/api/crates/${body.crate.id}/stop`]) {
      const stop = await timed('POST', path);
      expect([stop.status, stop.body.error.code]).to.deep.equal([503, 'queue_away']);
      expect(stop.ms).to.be.below(2000);
    }
    redis = await startRedis(port, folder);
    expect((await follow(server, body.crate.id)).at(-1)).to.include({ state: 'done', message: null });
    expect((await server.ask('GET', '/api/health')).body.ok).to.equal(true);
  });

  it('killed without anything on disk, it loses no crate: those that wait are added again', async () => {
    const ids = [await crateId(), await crateId(), await crateId()];
    const stopped = await crateId();
    await server.ask('POST', `/api/crates/${stopped}/stop`);
    expect((await follow(server, stopped)).at(-1)).to.include({ state: 'stopped' });
    await killed(redis!);
    const retry = await timed('POST', `/api/crates/${stopped}/retry`);
    expect([retry.status, retry.body.error.code]).to.deep.equal([503, 'queue_away']);
    expect(retry.ms).to.be.below(2000);
    redis = await startRedis(port, folder);
    for (const id of ids) expect((await follow(server, id)).at(-1), id).to.include({ state: 'done' });
    const { crates } = (await server.ask('GET', `/api/tiles/${tileId}/crates`)).body;
    const states = crates.map(({ state }: { state: string }) => state);
    // Newest first: what was stopped stays stopped.
    expect(states).to.deep.equal(['stopped', ...Array(4).fill('done')]);
  });
});
