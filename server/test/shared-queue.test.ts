import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtemp, readdir, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { sha256Of } from '@zesty-tile/codecs';
import { newRecipe } from '@zesty-tile/core';
import { expect } from 'chai';
import { Redis } from 'ioredis';
import { freePort } from '../../torture/src/process.ts';
import { startServer, type TestServer } from './client.ts';
import { said, startRedis } from './redis.ts';

const ZESTY = fileURLToPath(new URL('../../cli/bin/zesty.mjs', import.meta.url));

const gone = (child: ChildProcess) =>
  child.exitCode !== null || child.signalCode !== null
    ? Promise.resolve()
    : new Promise<void>((resolve) => child.once('exit', () => resolve()));

describe('a queue in Redis', () => {
  let folder = '';
  let url = '';
  let redis: ChildProcess;
  let first: TestServer;
  const workers: ChildProcess[] = [];

  before(async function () {
    this.timeout(60_000);
    folder = await mkdtemp(join(tmpdir(), 'zesty-redis-'));
    const port = await freePort();
    url = `redis://127.0.0.1:${port}`;
    redis = await startRedis(port, folder);
    // It makes nothing itself.
    first = await startServer(join(folder, 'one'), {
      redis: url,
      shared: join(folder, 'shared'),
      workers: 0,
    });
  });
  after(async () => {
    for (const worker of workers) worker.kill('SIGKILL');
    await first?.end();
    redis?.kill('SIGKILL');
    await rm(folder, { recursive: true, force: true });
  });

  async function work(): Promise<ChildProcess> {
    const child = spawn(process.execPath, [
      ZESTY,
      'worker',
      '--redis',
      url,
      '--shared',
      join(folder, 'shared'),
      '--workers',
      '1',
    ]);
    workers.push(child);
    await said(child, /Working with 1 threads/);
    return child;
  }

  /** A tile that takes a while. */
  async function tileOf(server: TestServer, name: string, size: number) {
    const tile = await server.makeTile(name);
    const recipe = newRecipe();
    recipe.stations.square.size = size as 256;
    await server.ask('POST', `/api/tiles/${tile.id}/revisions`, { base: 1, recipe });
    return tile.id;
  }

  const events = async (
    server: TestServer,
    id: string,
    until: (crate: { state: string; progress: number }) => boolean,
  ) => {
    const response = await fetch(`${server.url}/api/crates/${id}/events`);
    const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader();
    let text = '';
    for (;;) {
      const { value, done } = await reader.read();
      if (done) break;
      text += value;
      const all = [...text.matchAll(/^data: (.*)$/gm)].map((match) => JSON.parse(match[1]));
      if (all.some(until)) break;
    }
    await reader.cancel();
    return (await server.ask('GET', `/api/crates/${id}`)).body.crate;
  };
  const isDone = ({ state }: { state: string }) => ['done', 'failed', 'stopped'].includes(state);

  /** The crate's files are those its manifest names, with their hashes. */
  async function checkWhole(id: string) {
    const at = join(folder, 'shared', 'crates', id);
    const names = await readdir(at);
    expect(names.filter((name) => name.startsWith('.'))).to.deep.equal([]);
    const manifest = JSON.parse(
      await readFile(join(at, names.find((name) => name.endsWith('.tile.json'))!), 'utf8'),
    );
    for (const { file, sha256 } of manifest.files)
      expect(sha256Of(await readFile(join(at, file)))).to.equal(sha256);
    expect(names).to.have.length(manifest.files.length + 1);
  }

  it('a worker killed in the middle of a crate loses nothing: another makes it, once', async function () {
    this.timeout(300_000);
    const ids = [await tileOf(first, 'Long', 1024), await tileOf(first, 'Short', 256)];
    const { body } = await first.ask('POST', '/api/crates', { tiles: ids });
    const [long, short] = body.crates.map(({ id }: { id: string }) => id);
    const victim = await work();
    await events(first, long, ({ progress }) => progress > 0.2);
    victim.kill('SIGKILL');
    await gone(victim);
    expect((await first.ask('GET', `/api/crates/${long}`)).body.crate.state).to.equal('working');
    await work();
    const ended = await Promise.all([long, short].map((id) => events(first, id, isDone)));
    expect(ended.map(({ state }) => state)).to.deep.equal(['done', 'done']);
    await checkWhole(long);
    await checkWhole(short);
    const { files } = (await first.ask('GET', `/api/crates/${long}`)).body;
    expect(new Set(files.map(({ name }: { name: string }) => name)).size).to.equal(files.length);
    // Made once: the queue counts one completion for each.
    const client = new Redis(url);
    const completed = await client.zrange('bull:zesty-crates:completed', '0', '-1');
    client.disconnect();
    expect(completed.sort()).to.deep.equal([long, short].sort());
  });

  it('one that is being made stops on another machine; one that waits is never begun', async function () {
    this.timeout(300_000);
    const ids = [await tileOf(first, 'Stopped', 2048), await tileOf(first, 'Waits', 256)];
    const { body } = await first.ask('POST', '/api/crates', { tiles: ids });
    const [made, waits] = body.crates.map(({ id }: { id: string }) => id);
    await events(first, made, ({ progress }) => progress > 0.05);
    await first.ask('POST', `/api/crates/${waits}/stop`);
    await first.ask('POST', `/api/crates/${made}/stop`);
    for (const id of [waits, made]) expect((await events(first, id, isDone)).state).to.equal('stopped');
    expect(await readdir(join(folder, 'shared', 'crates')).then((all) => all.includes(waits))).to.equal(
      false,
    );
    // Run again it goes through.
    await first.ask('POST', `/api/crates/${waits}/retry`);
    expect((await events(first, waits, isDone)).state).to.equal('done');
  });

  it('what is made while its server is away is found when it is back; two servers share the work', async function () {
    this.timeout(300_000);
    const id = await tileOf(first, 'Away', 256);
    const { body } = await first.ask('POST', `/api/tiles/${id}/crates`);
    await first.end();
    const second = await startServer(join(folder, 'two'), {
      redis: url,
      shared: join(folder, 'shared'),
      workers: 1,
    });
    try {
      const other = (await second.ask('POST', `/api/tiles/${await tileOf(second, 'Beside', 256)}/crates`))
        .body;
      expect((await events(second, other.crate.id, isDone)).state).to.equal('done');
      first = await startServer(join(folder, 'one'), {
        redis: url,
        shared: join(folder, 'shared'),
        workers: 0,
      });
      expect((await events(first, body.crate.id, isDone)).state).to.equal('done');
      await checkWhole(body.crate.id);
      expect((await second.ask('GET', `/api/crates/${body.crate.id}`)).status).to.equal(404);
    } finally {
      await second.end();
    }
    expect(first.errors).to.deep.equal([]);
  });
});
