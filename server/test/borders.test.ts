import { mkdir, mkdtemp, readdir, readFile, rm, symlink } from 'node:fs/promises';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { newRecipe } from '@zesty-tile/core';
import { expect } from 'chai';
import { picture } from '../../codecs/test/pictures.ts';
import { loggable, problemOf } from '../src/problems.ts';
import { startServer, type TestServer } from './client.ts';
import { follow } from './crating.ts';

const MB = 2 ** 20;

describe('the borders of the API', () => {
  let server: TestServer;
  before(async () => {
    server = await startServer();
  });
  after(() => server.end());

  const parts = async () =>
    (await readdir(join(server.data, 'blobs', 'incoming')).catch(() => [])).filter((one) =>
      one.endsWith('.part'),
    );
  const post = async (path: string, body: string) => {
    const response = await fetch(server.url + path, { method: 'POST', body });
    return { status: response.status, text: await response.text() };
  };

  it('takes at most 1 MB of JSON, and a recipe with its strokes of at most 16 MB', async () => {
    const name = 'a'.repeat(MB);
    const large = await post('/api/projects', JSON.stringify({ name }));
    expect(large.status).to.equal(413);
    expect(JSON.parse(large.text).error).to.deep.include({
      code: 'body_too_large',
      message: 'The request holds more than 1 MB; nothing was changed.',
    });
    const tile = await server.makeTile();
    const at = `/api/tiles/${tile.id}/revisions`;
    const strokes = JSON.stringify({ base: 1, recipe: { ...newRecipe(), padding: 'a'.repeat(2 * MB) } });
    expect((await post(at, strokes)).status, 'too long for other routes, not for a recipe').to.equal(422);
    expect((await post(at, `${strokes}${' '.repeat(15 * MB)}`)).status).to.equal(413);
    // Without a stated length it is counted as it comes.
    const endless = new ReadableStream({
      pull: (controller) => controller.enqueue(new TextEncoder().encode(' '.repeat(MB / 4))),
    });
    const init = { method: 'POST', body: endless, duplex: 'half' } as RequestInit;
    const cut = await fetch(`${server.url}/api/projects`, init).then(
      ({ status }) => status,
      () => 'closed',
    );
    expect([413, 'closed']).to.include(cut);
  });

  it('refuses keys of the language, deep nesting and control characters, in words', async () => {
    for (const [body, words] of [
      ['{"name":"a","__proto__":{"polluted":1}}', /__proto__/],
      ['{"name":"a","constructor":1}', /constructor/],
      [`{"name":${'['.repeat(100)}${']'.repeat(100)}}`, /nested too deeply/],
      [`{"name":${'['.repeat(400_000)}${']'.repeat(400_000)}}`, /nested too deeply|no JSON/],
      ['{"name":"a\\u0000b"}', /printable/],
      ['{"name":"a\\ud800"}', /printable/],
      ['{"name":"', /no JSON/],
      ['null', /./],
    ] as const) {
      const { status, text } = await post('/api/projects', body);
      expect(status, body.slice(0, 60)).to.equal(422);
      expect(JSON.parse(text).error.message, body.slice(0, 60)).to.match(words);
    }
    expect(({} as { polluted?: number }).polluted).to.equal(undefined);
  });

  it('answers errors of bounded size', async () => {
    const key = 'k'.repeat(200_000);
    const many = Object.fromEntries(Array.from({ length: 2000 }, (_, k) => [`unknown${k}`, k]));
    const tile = await server.makeTile();
    for (const [path, body] of [
      ['/api/projects', { [key]: 1 }],
      [`/api/tiles/${tile.id}/revisions`, { base: 1, recipe: { version: 1, stations: { square: many } } }],
      ['/api/charts', { name: key, lines: [] }],
      ['/api/rigs', { name: 'a', lights: { [key]: 1 } }],
    ] as const) {
      const { status, text } = await post(path, JSON.stringify(body));
      expect(status, path).to.equal(422);
      expect(text.length, path).to.be.below(3000);
    }
    const foreign = await fetch(`${server.url}/api/health`, {
      headers: { Origin: `http://${'a'.repeat(8000)}` },
    });
    expect((await foreign.text()).length).to.be.below(3000);
  });

  it('refuses paths and names that lead elsewhere', async () => {
    for (const path of [
      '/api/thumbnails/..%2f..%2fzesty.db',
      '/api/thumbnails/%00',
      `/api/thumbnails/${'a'.repeat(4000)}`,
      '/api/crates/..%2f/files/..%2fzesty.db',
      `/api/crates/none/files/${'a'.repeat(300)}`,
      '/api/sources/%2e%2e/pixels?edge=9',
      `/api/sources/${'0'.repeat(64)}/pixels?edge=99999999999999999999`,
      '/api/tiles/__proto__',
      '/api/tiles/%ff',
    ]) {
      const response = await fetch(server.url + path);
      expect(response.status, path).to.be.within(400, 499);
      expect((await response.json()).error.message, path).to.match(/\w/);
    }
    const tile = await server.makeTile();
    for (const watched of [
      '/proc/zesty',
      '/proc/self/zesty',
      '/a\0b',
      `/tmp/${'a'.repeat(300)}`,
      '/dev/null/x',
    ]) {
      const { status, body } = await server.ask('PATCH', `/api/tiles/${tile.id}`, { watched });
      expect(status, watched).to.be.within(400, 499);
      expect(body.error.message, watched).to.match(/\w/);
    }
    expect(server.errors).to.deep.equal([]);
  });

  it('refuses crates whose files cannot be named, before anything is made', async () => {
    const tile = await server.makeTile('名'.repeat(40));
    const at = `/api/tiles/${tile.id}`;
    const { body } = await server.ask('GET', at);
    const tryWith = async (crate: object, base: number) => {
      const recipe = structuredClone(body.revision.recipe);
      Object.assign(recipe.stations.crate, crate);
      const saved = await server.ask('POST', `${at}/revisions`, { base, recipe });
      expect(saved.status, JSON.stringify(saved.body)).to.equal(201);
      return server.ask('POST', `${at}/crates`);
    };
    const text = (ending: string, content = 'x') => ({ text: { ending, text: content } });
    const nested = '{{#files}}{{#files}}{{name}}{{/files}}{{/files}}';
    for (const [k, [crate, code]] of (
      [
        [text('tile.json'), 'bad_text'],
        [text('a.Tile.JSON'), 'bad_text'],
        [text('txt', nested), 'bad_text'],
        [text('txt', `${'{{#size}}'.repeat(20)}${'{{/size}}'.repeat(20)}`), 'bad_text'],
        [{ names: `{tile}_{map}_${'名'.repeat(60)}`, text: null }, 'name_too_long'],
      ] as const
    ).entries()) {
      const answer = await tryWith(crate, k + 1);
      expect([answer.status, answer.body.error?.code], JSON.stringify(crate)).to.deep.equal([422, code]);
    }
    expect((await server.ask('GET', `${at}/crates`)).body.crates).to.deep.equal([]);
  });

  it('leaves nothing of an upload that is cut off, too long, or no form', async () => {
    const before = await parts();
    const { port } = new URL(server.url);
    const head = (length: number) =>
      `POST /api/sources HTTP/1.1\r\nHost: 127.0.0.1:${port}\r\nContent-Type: multipart/form-data; boundary=x\r\nContent-Length: ${length}\r\n\r\n`;
    const open = '--x\r\nContent-Disposition: form-data; name="file"; filename="a.png"\r\n\r\n';
    await new Promise<void>((resolve) => {
      const socket = connect(Number(port), '127.0.0.1', () => {
        socket.write(head(10 * MB) + open + 'a'.repeat(MB), () => socket.destroy());
      });
      socket.once('close', () => resolve());
    });
    // The bytes stop in the middle of the form.
    const broken = await fetch(`${server.url}/api/sources`, {
      method: 'POST',
      headers: { 'Content-Type': 'multipart/form-data; boundary=x' },
      body: `${open}half`,
    });
    expect((await broken.json()).error.code).to.equal('bad_input');
    for (const type of ['text/plain', 'multipart/form-data', '']) {
      const response = await fetch(`${server.url}/api/sources`, {
        method: 'POST',
        headers: type ? { 'Content-Type': type } : {},
        body: new Uint8Array([1, 2, 3]),
      });
      expect((await response.json()).error.code, type).to.equal('bad_input');
    }
    const chunk = new Uint8Array(MB);
    let sent = 0;
    const long = new ReadableStream({
      pull(controller) {
        if (sent === 0) controller.enqueue(new TextEncoder().encode(open));
        if (sent++ < 205) controller.enqueue(chunk);
        else {
          controller.enqueue(new TextEncoder().encode('\r\n--x--\r\n'));
          controller.close();
        }
      },
    });
    const tooLong = await fetch(`${server.url}/api/sources`, {
      method: 'POST',
      headers: { 'Content-Type': 'multipart/form-data; boundary=x' },
      body: long,
      duplex: 'half',
    } as RequestInit);
    expect([tooLong.status, (await tooLong.json()).error.code]).to.deep.equal([413, 'file_too_large']);
    // A moment later also the upload whose client went away.
    while ((await parts()).length > before.length) await new Promise((resolve) => setImmediate(resolve));
    expect((await server.upload(await picture().png().toBuffer())).status).to.equal(201);
    expect(server.errors).to.deep.equal([]);
  });

  it('follows links of a watched folder: one into the program’s own folders is refused', async () => {
    const tile = await server.makeTile();
    const outside = await mkdtemp(join(tmpdir(), 'zesty-link-'));
    try {
      await mkdir(join(server.data, 'crates', 'inner'), { recursive: true });
      await symlink(join(server.data, 'crates', 'inner'), join(outside, 'link'));
      const inside = await server.ask('PATCH', `/api/tiles/${tile.id}`, { watched: join(outside, 'link') });
      expect(inside.body.error?.message).to.equal('That folder is reserved for the program’s data.');
      await mkdir(join(outside, 'real'));
      await symlink(join(outside, 'real'), join(outside, 'other'));
      const other = await server.ask('PATCH', `/api/tiles/${tile.id}`, { watched: join(outside, 'other') });
      expect(other.body.tile.watched).to.equal(join(outside, 'real'));
    } finally {
      await rm(outside, { recursive: true, force: true });
    }
  });

  it('of two refreshes of one folder the newer set stays, whichever ends first', async () => {
    const tile = await server.makeTile('Order');
    const folder = await mkdtemp(join(tmpdir(), 'zesty-order-'));
    try {
      const at = `/api/tiles/${tile.id}`;
      await server.ask('PATCH', at, { watched: folder });
      const ids: string[] = [];
      for (const [base, size] of [
        [1, 2048],
        [2, 256],
      ]) {
        const recipe = newRecipe();
        recipe.stations.square.size = size as 256;
        await server.ask('POST', `${at}/revisions`, { base, recipe });
        ids.push((await server.ask('POST', `${at}/crates?refresh=yes`)).body.crate.id);
      }
      const [older, newer] = await Promise.all(ids.map((id) => follow(server, id)));
      const [a, b] = [older.at(-1), newer.at(-1)];
      expect([a.state, b.state]).to.deep.equal(['done', 'done']);
      expect(new Date(b.endedAt).getTime(), 'the newer one ended first').to.be.below(
        new Date(a.endedAt).getTime(),
      );
      expect(a.message).to.equal('Crate 2 is newer and in the folder already; it was left there.');
      const manifest = JSON.parse(await readFile(join(folder, 'Order.tile.json'), 'utf8'));
      expect(manifest.crate).to.equal(2);
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  });
});

describe('errors of the system and the database', () => {
  const coded = (code: string, message = code) => Object.assign(new Error(message), { code });

  it('are told apart in words', () => {
    const codes = {
      ENOSPC: 'disk_full',
      SQLITE_FULL: 'disk_full',
      SQLITE_IOERR_WRITE: 'disk_full',
      EROFS: 'read_only',
      SQLITE_READONLY_DBMOVED: 'read_only',
      EMFILE: 'too_many_files',
      SQLITE_CANTOPEN: 'no_database',
      SQLITE_BUSY: 'locked',
      SQLITE_IOERR_READ: 'disk_error',
      SQLITE_CORRUPT: 'disk_error',
      ENAMETOOLONG: 'bad_name',
    };
    for (const [code, expected] of Object.entries(codes)) {
      const wrapped = new Error('Failed query: insert … params: secret', { cause: coded(code) });
      const problem = problemOf(wrapped);
      expect(problem?.code, code).to.equal(expected);
      expect(`${problem?.message} ${problem?.hint}`, code).not.to.include('secret');
    }
    expect(problemOf(coded('ENOENT'))).to.equal(null);
    expect(problemOf('a text')).to.equal(null);
  });

  it('are logged without what a query was asked with', () => {
    const wrapped = new Error('Failed query: select 1\nparams: secret', {
      cause: coded('X', 'no such column'),
    });
    const logged = loggable(wrapped) as Error;
    expect(`${logged.message}\n${logged.stack}`).to.include('no such column').and.not.to.include('secret');
    const other = new Error('plain');
    expect(loggable(other)).to.equal(other);
  });
});
