import { mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sha256Of } from '@zesty-tile/codecs';
import { newRecipe, PROFILES } from '@zesty-tile/core';
import { expect } from 'chai';
import { unzipSync } from 'fflate';
import { PNG } from 'pngjs';
import { startServer, type TestServer } from './client.ts';
import { follow, smallRecipe } from './crating.ts';

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

  it('tells of each file while it is written', async () => {
    const tile = await smallTile('Told');
    const { id } = (await server.ask('POST', `/api/tiles/${tile.id}/crates`)).body.crate;
    const files = (await follow(server, id)).flatMap(({ file }) => (file ? [file] : []));
    expect(files.map(({ name }) => name)).to.include('Told_normal.png');
    expect(files.every(({ index, count, share }) => index < count && share >= 0 && share <= 1)).to.equal(
      true,
    );
  });

  it('of several tiles are asked for at once, moved in the queue, stopped and run again under their number', async () => {
    const tiles = [];
    for (const name of ['One', 'Two', 'Three', 'Four']) tiles.push(await smallTile(name));
    const { status, body } = await server.ask('POST', '/api/crates', { tiles: tiles.map(({ id }) => id) });
    expect(status).to.equal(202);
    const ids: string[] = body.crates.map(({ id }: { id: string }) => id);
    // Two are made at once: the last two wait.
    const moved = await server.ask('POST', `/api/crates/${ids[3]}/move`, { to: 'first' });
    expect(moved.body.crate.place).to.be.below(body.crates[0].place);
    expect((await server.ask('POST', `/api/crates/${ids[2]}/stop`)).status).to.equal(200);
    expect((await follow(server, ids[2])).at(-1).state).to.equal('stopped');
    const ended = await Promise.all([0, 1, 3].map(async (k) => (await follow(server, ids[k])).at(-1)));
    expect(ended.map(({ state }) => state)).to.deep.equal(['done', 'done', 'done']);
    const again = await server.ask('POST', `/api/crates/${ids[2]}/retry`);
    expect([again.status, again.body.crate.number]).to.deep.equal([202, 1]);
    expect((await follow(server, ids[2])).at(-1)).to.include({ state: 'done', number: 1 });
    expect((await server.ask('POST', `/api/crates/${ids[2]}/retry`)).status).to.equal(409);
    expect((await server.ask('POST', `/api/crates/${ids[2]}/move`, { to: 'up' })).status).to.equal(409);
    expect((await server.ask('POST', '/api/crates', { tiles: [] })).body.error.message).to.match(
      /at least one/,
    );
  });

  it('are put in a folder that a renderer watches, the former kept; one that cannot be used is refused in words', async () => {
    const tile = await smallTile('Watched');
    const folder = await mkdtemp(join(tmpdir(), 'zesty-watched-'));
    try {
      expect(
        (await server.ask('POST', `/api/tiles/${tile.id}/crates?refresh=yes`)).body.error.message,
      ).to.match(/has no folder/);
      for (const [wrong, words] of [
        ['relative/path', /must be absolute/],
        [server.data, /reserved for the program’s data/],
        [join(server.data, 'zesty.db', 'x'), /reserved for the program’s data/],
      ] as const) {
        const { status, body } = await server.ask('PATCH', `/api/tiles/${tile.id}`, { watched: wrong });
        expect(status, wrong).to.equal(422);
        expect(body.error.message).to.match(words);
      }
      const set = await server.ask('PATCH', `/api/tiles/${tile.id}`, { watched: folder });
      expect(set.body.tile.watched).to.equal(folder);
      for (let k = 0; k < 2; k++) {
        const { id } = (await server.ask('POST', `/api/tiles/${tile.id}/crates?refresh=yes`)).body.crate;
        expect((await follow(server, id)).at(-1).state).to.equal('done');
      }
      const manifest = JSON.parse(await readFile(join(folder, 'Watched.tile.json'), 'utf8'));
      expect(manifest.crate).to.equal(2);
      const former = join(folder, 'former', 'Watched', 'Watched.tile.json');
      expect(JSON.parse(await readFile(former, 'utf8')).crate).to.equal(1);
      // A folder that has become a file: the crate says so, and goes through once it is one again.
      await rm(folder, { recursive: true });
      await writeFile(folder, '');
      const { id } = (await server.ask('POST', `/api/tiles/${tile.id}/crates?refresh=yes`)).body.crate;
      const end = (await follow(server, id)).at(-1);
      expect(end.state).to.equal('failed');
      expect(end.message).to.match(/complete in its own place.*is not a folder/);
      await rm(folder);
      await server.ask('POST', `/api/crates/${id}/retry`);
      expect((await follow(server, id)).at(-1).state).to.equal('done');
      expect(JSON.parse(await readFile(join(folder, 'Watched.tile.json'), 'utf8')).crate).to.equal(3);
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  });

  it('are opened again as a recipe of their tile, or as a tile of their maps', async () => {
    const tile = await smallTile('Opened');
    const { id } = (await server.ask('POST', `/api/tiles/${tile.id}/crates`)).body.crate;
    await follow(server, id);
    const { recipe } = (await server.ask('GET', `/api/tiles/${tile.id}`)).body.revision;
    recipe.stations.relief.depthMm = 33;
    await server.ask('POST', `/api/tiles/${tile.id}/revisions`, { base: 2, recipe });
    const back = await server.ask('POST', `/api/crates/${id}/open`, { as: 'recipe' });
    expect(back.body.tileId).to.equal(tile.id);
    const { revision } = (await server.ask('GET', `/api/tiles/${tile.id}`)).body;
    expect([revision.number, revision.recipe.stations.relief.depthMm]).to.deep.equal([4, 8]);
    const opened = await server.ask('POST', `/api/crates/${id}/open`, { as: 'set' });
    expect(opened.status).to.equal(201);
    const made = (await server.ask('GET', `/api/tiles/${opened.body.tileId}`)).body;
    expect(made.tile.name).to.equal('Opened, crate 1');
    expect(Object.keys(made.revision.recipe.stations.source.given).sort()).to.deep.equal(
      ['cavity', 'height', 'metallic', 'normal', 'occlusion', 'roughness'].sort(),
    );
    // Crated again it gives the maps it was made of.
    const second = (await server.ask('POST', `/api/tiles/${opened.body.tileId}/crates`)).body.crate;
    expect((await follow(server, second.id)).at(-1).state).to.equal('done');
    const pixels = async (crate: string, map: string) => {
      const { files } = (await server.ask('GET', `/api/crates/${crate}`)).body;
      const { name } = files.find((file: { name: string }) => file.name.endsWith(`_${map}.png`));
      const answer = await fetch(`${server.url}/api/crates/${crate}/files/${encodeURIComponent(name)}`);
      return PNG.sync.read(Buffer.from(await answer.arrayBuffer())).data;
    };
    for (const map of ['albedo', 'roughness', 'occlusion', 'normal']) {
      const [a, b] = [await pixels(id, map), await pixels(second.id, map)];
      const most = a.reduce((worst, value, k) => Math.max(worst, Math.abs(value - b[k])), 0);
      expect(most, map).to.be.at.most(2);
    }
  });

  it('of packed files and of a glTF are opened as a tile too', async () => {
    for (const profile of ['packed', 'gltf']) {
      const tile = await smallTile(`Packed ${profile}`);
      const recipe = smallRecipe();
      const crate = { ...recipe.stations.crate, profile };
      const body = { base: 2, recipe: { ...recipe, stations: { ...recipe.stations, crate } } };
      await server.ask('POST', `/api/tiles/${tile.id}/revisions`, body);
      const { id } = (await server.ask('POST', `/api/tiles/${tile.id}/crates`)).body.crate;
      await follow(server, id);
      const { tileId } = (await server.ask('POST', `/api/crates/${id}/open`, { as: 'set' })).body;
      const { given } = (await server.ask('GET', `/api/tiles/${tileId}`)).body.revision.recipe.stations
        .source;
      expect(Object.keys(given), profile).to.include.members([
        'normal',
        'occlusion',
        'roughness',
        'metallic',
      ]);
    }
  });

  it('of a tile named in any script, or with a slash, is deleted so that it are available back', async () => {
    const tile = await smallTile('石の壁/北');
    const { id } = (await server.ask('POST', `/api/tiles/${tile.id}/crates`)).body.crate;
    await follow(server, id);
    const count = async () => (await server.ask('GET', `/api/tiles/${tile.id}/crates`)).body.crates.length;
    await server.ask('DELETE', `/api/crates/${id}`);
    expect(await count()).to.equal(0);
    await server.ask('POST', `/api/crates/${id}/restore`);
    expect(await count()).to.equal(1);
    const { files } = (await server.ask('GET', `/api/crates/${id}`)).body;
    const names = files.map(({ name }: { name: string }) => name);
    expect(names).to.include.members(['石の壁-北_albedo.png', '石の壁-北.tile.json']);
    const one = await fetch(
      `${server.url}/api/crates/${id}/files/${encodeURIComponent('石の壁-北_normal.png')}`,
    );
    expect([one.status, one.headers.get('content-type')]).to.deep.equal([200, 'image/png']);
  });

  it('profiles are kept for a project, and a wrong one is refused in words', async () => {
    const { body: made } = await server.ask('POST', '/api/projects', { name: 'Profiles' });
    const projectId = made.project.id;
    const ours = { ...PROFILES.packed, name: 'Ours' };
    const { body } = await server.ask('POST', '/api/profiles', { projectId, profile: ours });
    const list = async () => (await server.ask('GET', `/api/profiles?project=${projectId}`)).body.profiles;
    expect(await list()).to.deep.equal([{ id: body.profile.id, profile: ours }]);
    const twice = { ...ours, files: [ours.files[0], ours.files[0]] };
    const wrong = await server.ask('PUT', `/api/profiles/${body.profile.id}`, { profile: twice });
    expect([wrong.status, wrong.body.error.code]).to.deep.equal([422, 'bad_profile']);
    expect(wrong.body.error.message).to.match(/Two files are called “albedo”/);
    await server.ask('PUT', `/api/profiles/${body.profile.id}`, { profile: { ...ours, name: 'Theirs' } });
    expect((await list())[0].profile.name).to.equal('Theirs');
    await server.ask('DELETE', `/api/profiles/${body.profile.id}`);
    expect(await list()).to.deep.equal([]);
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
    const left = await readdir(server.store.crates.folderOf(id)).catch(() => []);
    expect(left).to.deep.equal([]);
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
