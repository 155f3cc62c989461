import { readdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { newRecipe } from '@zesty-tile/core';
import { expect } from 'chai';
import sharp from 'sharp';
import { giantPng, noisyJpeg, picture } from '../../codecs/test/pictures.ts';
import { rawStatus, startServer, type TestServer } from './client.ts';

describe('server', () => {
  let server: TestServer;
  before(async () => {
    server = await startServer();
  });
  after(() => server.end());

  it('is well, and answers unknown addresses in plain words', async () => {
    expect((await server.ask('GET', '/api/health')).body).to.deep.equal({
      ok: true,
      pool: { answers: true, running: 0, waiting: 0 },
      queue: true,
    });
    const { status, body } = await server.ask('GET', '/api/nothing');
    expect(status).to.equal(404);
    expect(body.error).to.include.keys('code', 'message', 'hint');
  });

  it('stores a picture once, by its content', async () => {
    const bytes = await picture().png().toBuffer();
    const one = await server.upload(bytes, 'one.png');
    const two = await server.upload(bytes, 'two.jpg');
    expect(one.status).to.equal(201);
    expect(one.body.source).to.deep.include({
      width: 96,
      height: 64,
      format: 'PNG',
      bits: 8,
      hasAlpha: false,
    });
    expect(two.body.source).to.deep.equal(one.body.source);
  });

  it('hands out the samples, brought down when the picture is far larger than needed', async () => {
    const { body } = await server.upload(await picture(96, 64).tiff({ compression: 'lzw' }).toBuffer());
    const ask = async (edge: string) => {
      const response = await fetch(`${server.url}/api/sources/${body.source.sha256}/pixels?edge=${edge}`);
      const header = JSON.parse(response.headers.get('x-pixels') ?? 'null');
      return { status: response.status, header, bytes: new Uint8Array(await response.arrayBuffer()) };
    };
    const whole = await ask('64');
    expect(whole.header).to.deep.equal({
      width: 96,
      height: 64,
      channels: 3,
      bits: 8,
      originalWidth: 96,
      originalHeight: 64,
    });
    expect([...whole.bytes.subarray(30, 32)]).to.deep.equal([70, 120]);
    const half = await ask('32');
    expect(half.header).to.deep.include({ width: 48, height: 32, bits: 16, originalWidth: 96 });
    expect(half.bytes.length).to.equal(48 * 32 * 3 * 2);
    expect((await ask('0')).status).to.equal(422);
    expect((await ask('wide')).status).to.equal(422);
  });

  it('refuses bad pictures one after the other, keeps nothing of them, and goes on', async () => {
    const blobs = async () =>
      (await readdir(join(server.data, 'blobs'), { recursive: true }).catch((): string[] => []))
        .filter((name) => /\w{62}$/.test(name))
        .sort();
    const before = await blobs();
    const whole = await noisyJpeg();
    const wide = giantPng();
    const bad: [Uint8Array, string, number, string][] = [
      [Buffer.from('not a picture at all'), 'text.jpg', 422, 'not_a_picture'],
      [whole.subarray(0, whole.length / 2), 'broken.jpg', 422, 'damaged'],
      [
        await sharp({ create: { width: 1, height: 1, channels: 3, background: '#888' } })
          .png()
          .toBuffer(),
        'dot.png',
        422,
        'too_small',
      ],
      [wide, 'giant.png', 413, 'too_many_pixels'],
      [new Uint8Array(), 'empty.png', 422, 'empty_file'],
    ];
    for (const [bytes, name, status, code] of bad) {
      const answer = await server.upload(bytes, name);
      expect([answer.status, answer.body.error.code], name).to.deep.equal([status, code]);
      expect(answer.body.error.hint, name).to.match(/\w/);
    }
    expect(await blobs()).to.deep.equal(before);
    expect((await server.ask('GET', '/api/health')).status).to.equal(200);
    const form = new FormData();
    form.append('file', 'a text, not a file');
    expect((await server.ask('POST', '/api/sources', form)).body.error.field).to.equal('file');
  }).timeout(120000);

  it('refuses an upload by its announced length, before it is sent', async () => {
    const { host } = new URL(server.url);
    const headers = {
      Host: host,
      'Content-Type': 'multipart/form-data; boundary=x',
      'Content-Length': '300000000',
    };
    expect(await rawStatus(`${server.url}/api/sources`, headers, 'POST')).to.equal(413);
    expect((await server.ask('GET', '/api/health')).status).to.equal(200);
  });

  it('makes a tile from a picture whose name tries to leave its folder', async () => {
    const tile = await server.makeTile('../../etc/passwd');
    const { body } = await server.ask('GET', `/api/tiles/${tile.id}`);
    expect(body.tile.name).to.equal('../../etc/passwd');
    const crate = await server.ask('POST', `/api/tiles/${tile.id}/crates`);
    expect(crate.body.crate.name).to.equal('etc-passwd');
    await server.ask('POST', `/api/crates/${crate.body.crate.id}/stop`);
  });

  it('keeps revisions, newest first, and refuses what was based on an older one', async () => {
    const tile = await server.makeTile();
    const at = `/api/tiles/${tile.id}`;
    const recipe = { ...newRecipe(), seed: 7 };
    expect((await server.ask('POST', `${at}/revisions`, { base: 1, recipe })).body.revision.number).to.equal(
      2,
    );
    const late = await server.ask('POST', `${at}/revisions`, { base: 1, recipe: { ...recipe, seed: 8 } });
    expect(late.status).to.equal(409);
    expect(late.body).to.deep.include({ newest: 2 });
    expect(late.body.error.code).to.equal('conflict');
    expect((await server.ask('GET', at)).body.revision).to.deep.include({ number: 2 });
    expect((await server.ask('GET', `${at}/revisions/2`)).body.revision.recipe.seed).to.equal(7);
    expect((await server.ask('GET', `${at}/revisions/1`)).body.revision.recipe.seed).to.equal(1);
    const { body } = await server.ask('GET', `${at}/revisions`);
    expect(body.revisions.map((r: { number: number }) => r.number)).to.deep.equal([2, 1]);
  });

  it('of two saves at the same moment takes one', async () => {
    const tile = await server.makeTile();
    const save = (seed: number) =>
      server.ask('POST', `/api/tiles/${tile.id}/revisions`, { base: 1, recipe: { ...newRecipe(), seed } });
    const answers = await Promise.all([1, 2, 3, 4, 5].map(save));
    expect(answers.map((a) => a.status).sort()).to.deep.equal([201, 409, 409, 409, 409]);
    // A conflict is an answer, not a fault of the server: nothing is logged.
    expect(server.errors).to.deep.equal([]);
  });

  it('says what is wrong with what it is sent', async () => {
    const tile = await server.makeTile();
    const at = `/api/tiles/${tile.id}/revisions`;
    const send = async (body: unknown) => (await server.ask('POST', at, body)).body.error;
    const odd = { version: 1, stations: { square: { sise: 512 } } };
    expect((await send({ base: 1, recipe: odd })).message).to.include('stations.square.sise');
    const size = { version: 1, stations: { square: { size: 1000 } } };
    expect((await send({ base: 1, recipe: size })).message).to.match(/256, 512.*1000/);
    expect((await send({ recipe: newRecipe() })).field).to.equal('base');
    expect((await server.ask('POST', '/api/projects', { name: '   ' })).body.error.field).to.equal('name');
    expect((await server.ask('POST', '/api/projects', { name: 'a', colour: 'b' })).body.error.field).to.equal(
      'colour',
    );
    const response = await fetch(server.url + at, { method: 'POST', body: 'no json' });
    expect((await response.json()).error.code).to.equal('bad_input');
    for (const path of [
      '/api/tiles/none',
      '/api/tiles/none/look',
      '/api/crates/none',
      '/api/sources/none/pixels?edge=9',
    ]) {
      expect((await server.ask('GET', path)).status, path).to.equal(404);
    }
    const orphan = { projectId: 'none', name: 'a', sourceSha256: 'b', sourceName: 'c' };
    expect((await server.ask('POST', '/api/tiles', orphan)).status).to.equal(404);
  });

  it('measures a look of the newest revision, once, with a thumbnail', async () => {
    const tile = await server.makeTile();
    const { body } = await server.ask('GET', `/api/tiles/${tile.id}/look`);
    expect(Object.keys(body.verdicts)).to.include.members(['source', 'join', 'crate']);
    const thumbnail = await fetch(`${server.url}/api/thumbnails/${body.thumbnail}`);
    const { width, format } = await sharp(Buffer.from(await thumbnail.arrayBuffer())).metadata();
    expect([width, format]).to.deep.equal([256, 'webp']);
    expect((await server.ask('GET', `/api/tiles/${tile.id}/look`)).body).to.deep.equal(body);
  });

  it('says so when a stored picture has vanished from the disk, and takes it again', async () => {
    const bytes = await picture(120, 90).png().toBuffer();
    const { body } = await server.upload(bytes);
    const { sha256 } = body.source;
    await rm(join(server.data, 'blobs', sha256.slice(0, 2), sha256.slice(2)));
    // Another picture in between, so that no decoded copy answers instead.
    await Promise.all(
      [0, 1, 2].map(async (k) =>
        server.upload(
          await picture(100 + k, 90)
            .png()
            .toBuffer(),
        ),
      ),
    );
    const ask = () => fetch(`${server.url}/api/sources/${sha256}/pixels?edge=90`);
    const statuses = await Promise.all([ask(), ask(), ask(), ask()].map(async (r) => (await r).status));
    expect(statuses).to.include(410);
    await server.upload(bytes);
    expect((await ask()).status).to.equal(200);
  });
});
