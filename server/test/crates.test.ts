import { mkdir, mkdtemp, readdir, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sha256Of } from '@zesty-tile/codecs';
import { newRecipe } from '@zesty-tile/core';
import { openStore } from '@zesty-tile/server';
import { expect } from 'chai';
import { unzipSync } from 'fflate';
import { crateJob } from '../src/db/schema.ts';
import { startServer, type TestServer } from './client.ts';

/** The events of a crate until it ends. */
async function follow(server: TestServer, id: string) {
  const response = await fetch(`${server.url}/api/crates/${id}/events`);
  const text = await response.text();
  return [...text.matchAll(/^data: (.*)$/gm)].map((match) => JSON.parse(match[1]));
}

const smallRecipe = () => {
  const recipe = newRecipe();
  return {
    ...recipe,
    stations: { ...recipe.stations, square: { ...recipe.stations.square, size: 256 as const } },
  };
};

describe('crates', () => {
  let server: TestServer;
  before(async () => {
    server = await startServer();
  });
  after(() => server.end());

  async function smallTile(name: string) {
    const tile = await server.makeTile(name);
    await server.ask('POST', `/api/tiles/${tile.id}/revisions`, { base: 1, recipe: smallRecipe() });
    return tile;
  }

  it('is made with progress told, and holds every map and its manifest', async () => {
    const tile = await smallTile('Sea wall');
    const { status, body } = await server.ask('POST', `/api/tiles/${tile.id}/crates`);
    expect(status).to.equal(202);
    const { id } = body.crate;
    const told = await follow(server, id);
    expect(told.at(-1)).to.include({ state: 'done', progress: 1 });
    const shares = told.map((job) => job.progress);
    expect(shares.every((p, i) => i === 0 || p >= shares[i - 1])).to.equal(true);
    expect(told.length).to.be.above(3);
    const { files } = (await server.ask('GET', `/api/crates/${id}`)).body;
    const zip = await fetch(`${server.url}/api/crates/${id}/archive.zip`);
    expect(zip.headers.get('content-disposition')).to.include('Sea%20wall%201.zip');
    const held = unzipSync(new Uint8Array(await zip.arrayBuffer()));
    expect(Object.keys(held).sort()).to.deep.equal(files.map((f: { name: string }) => f.name).sort());
    for (const { name, sha256, bytes } of files) {
      expect(sha256Of(held[name]), name).to.equal(sha256);
      expect(held[name].length, name).to.equal(bytes);
    }
    const manifest = JSON.parse(new TextDecoder().decode(held['Sea wall.tile.json']));
    for (const file of manifest.files) expect(sha256Of(held[file.file]), file.file).to.equal(file.sha256);
    const one = await fetch(
      `${server.url}/api/crates/${id}/files/${encodeURIComponent('Sea wall_albedo.png')}`,
    );
    expect(sha256Of(new Uint8Array(await one.arrayBuffer()))).to.equal(sha256Of(held['Sea wall_albedo.png']));
  });

  it('gets a number of its own each time and leaves the earlier one as it is', async () => {
    const tile = await smallTile('Steps');
    const ids: string[] = [];
    for (let k = 0; k < 2; k++) {
      const { body } = await server.ask('POST', `/api/tiles/${tile.id}/crates`);
      await follow(server, body.crate.id);
      ids.push(body.crate.id);
    }
    const { crates } = (await server.ask('GET', `/api/tiles/${tile.id}/crates`)).body;
    expect(crates.map((c: { number: number; state: string }) => [c.number, c.state])).to.deep.equal([
      [2, 'done'],
      [1, 'done'],
    ]);
    const of = async (id: string) =>
      (await server.ask('GET', `/api/crates/${id}`)).body.files.find((f: { name: string }) =>
        f.name.endsWith('albedo.png'),
      ).sha256;
    expect(await of(ids[0])).to.equal(await of(ids[1]));
  });

  it('gives out nothing that is not in it', async () => {
    const tile = await smallTile('Pot');
    const { body } = await server.ask('POST', `/api/tiles/${tile.id}/crates`);
    await follow(server, body.crate.id);
    for (const name of ['..%2F..%2Fzesty.db', `..%2f${body.crate.id}`, 'nothing.png', '%2Fetc%2Fpasswd']) {
      expect((await server.ask('GET', `/api/crates/${body.crate.id}/files/${name}`)).status, name).to.equal(
        404,
      );
    }
  });

  it('can be stopped, leaves nothing half-written, and is then not to be had', async () => {
    const tile = await server.makeTile('Long');
    const recipe = newRecipe();
    const large = {
      ...recipe,
      stations: { ...recipe.stations, square: { ...recipe.stations.square, size: 2048 } },
    };
    await server.ask('POST', `/api/tiles/${tile.id}/revisions`, { base: 1, recipe: large });
    const { id } = (await server.ask('POST', `/api/tiles/${tile.id}/crates`)).body.crate;
    await server.ask('POST', `/api/crates/${id}/stop`);
    const told = await follow(server, id);
    expect(told.at(-1).state).to.equal('stopped');
    expect((await readdir(server.store.crates.folder)).filter((name) => name.startsWith(id))).to.deep.equal(
      [],
    );
    const zip = await server.ask('GET', `/api/crates/${id}/archive.zip`);
    expect([zip.status, zip.body.error.code]).to.deep.equal([409, 'not_ready']);
    expect((await server.ask('POST', `/api/crates/${id}/stop`)).status).to.equal(409);
    expect(server.errors).to.deep.equal([]);
  });

  it('says in words why one failed, and the server goes on', async () => {
    const tile = await smallTile('Lost');
    const { body } = await server.ask('GET', `/api/tiles/${tile.id}`);
    const { sha256 } = body.source;
    await rm(join(server.data, 'blobs', sha256.slice(0, 2), sha256.slice(2)));
    const started = await Promise.all(
      [0, 1, 2].map(() => server.ask('POST', `/api/tiles/${tile.id}/crates`)),
    );
    const ends = await Promise.all(
      started
        .filter((s) => s.status === 202)
        .map(async (s) => (await follow(server, s.body.crate.id)).at(-1)),
    );
    for (const end of ends) {
      if (end.state === 'failed') expect(end.message).to.match(/no longer in the store/);
      else expect(end.state).to.equal('done');
    }
    expect((await server.ask('GET', '/api/health')).status).to.equal(200);
  });
});

describe('after a crash', () => {
  it('what was under way is marked as interrupted, and half-written folders are gone', async () => {
    const folder = await mkdtemp(join(tmpdir(), 'zesty-crash-'));
    try {
      const first = await startServer(folder);
      const tile = await first.makeTile('Cut off');
      await first.end();
      const store = await openStore(folder, () => {});
      const id = 'left-behind';
      const row = {
        tileId: tile.id,
        number: 1,
        revision: 1,
        name: 'a',
        progress: 0.4,
        createdAt: new Date(),
      };
      await store.db.insert(crateJob).values({ id, state: 'working', ...row });
      const part = join(store.crates.folder, `${id}.part`);
      await mkdir(part);
      await writeFile(join(part, 'a_albedo.png'), 'half');
      await store.close();

      const again = await startServer(folder);
      const { crate } = (await again.ask('GET', `/api/crates/${id}`)).body;
      expect(crate.state).to.equal('interrupted');
      expect(crate.message).to.match(/Run it again/);
      expect(await readdir(again.store.crates.folder)).to.deep.equal([]);
      expect((await again.ask('POST', `/api/tiles/${tile.id}/crates`)).body.crate.number).to.equal(2);
      await again.end();
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  });
});
