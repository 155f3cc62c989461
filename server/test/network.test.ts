import { mkdtemp, rm, stat, writeFile } from 'node:fs/promises';
import { hostname, tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from 'chai';
import { rawStatus, startServer, type TestServer } from './client.ts';

const BROWSER = 'Mozilla/5.0 (X11; Linux x86_64)';

describe('the server on loopback', () => {
  let server: TestServer;
  let url = '';
  let host = '';
  before(async () => {
    server = await startServer();
    url = `${server.url}/api/health`;
    host = new URL(server.url).host;
  });
  after(() => server.end());

  it('answers to its own names only', async () => {
    const port = host.split(':')[1];
    for (const own of [host, `localhost:${port}`, `[::1]:${port}`, `LOCALHOST:${port}`]) {
      expect(await rawStatus(url, { Host: own }), own).to.equal(200);
    }
    for (const other of ['elsewhere.example', `rebound.example:${port}`, `${hostname()}:${port}`]) {
      expect(await rawStatus(url, { Host: other }), other).to.equal(403);
    }
  });

  it('refuses requests of other sites’ pages', async () => {
    for (const origin of ['http://elsewhere.example', 'null', 'http://localhost:1']) {
      expect(await rawStatus(url, { Host: host, Origin: origin }), origin).to.equal(403);
    }
    expect(await rawStatus(url, { Host: host, Origin: `http://${host}` })).to.equal(200);
    for (const [site, status] of [
      ['cross-site', 403],
      ['same-site', 403],
      ['same-origin', 200],
      ['none', 200],
    ] as const) {
      expect(await rawStatus(url, { Host: host, 'Sec-Fetch-Site': site }), site).to.equal(status);
    }
    const opened = { 'Sec-Fetch-Mode': 'navigate', 'Sec-Fetch-Dest': 'document' };
    expect(await rawStatus(url, { Host: host, 'Sec-Fetch-Site': 'cross-site', ...opened })).to.equal(403);
  });

  it('refuses a change from a browser that does not say which page it is of; scripts may go without', async () => {
    const at = `${server.url}/api/projects`;
    const send = (headers: Record<string, string>) => rawStatus(at, { Host: host, ...headers }, 'POST');
    expect(await send({ 'User-Agent': BROWSER })).to.equal(403);
    expect(await send({ 'Sec-Fetch-Site': 'same-origin' })).to.equal(403);
    // Past the guard an empty body is what is wrong.
    expect(await send({ 'User-Agent': BROWSER, Origin: `http://${host}` })).to.equal(422);
    expect(await send({ 'User-Agent': 'curl/8' })).to.equal(422);
  });

  it('isolates its pages, and forbids frames, on refusals too', async () => {
    for (const path of ['/api/health', '/api/nothing']) {
      const { headers } = await fetch(server.url + path);
      expect(headers.get('content-security-policy')).to.include("frame-ancestors 'none'");
      expect(headers.get('content-security-policy')).to.include("default-src 'self'");
      expect(headers.get('x-content-type-options')).to.equal('nosniff');
      expect(headers.get('referrer-policy')).to.equal('no-referrer');
      expect(headers.get('cross-origin-opener-policy')).to.equal('same-origin');
      expect(headers.get('cross-origin-embedder-policy')).to.equal('require-corp');
    }
    const refused = await fetch(url, { headers: { Origin: 'http://elsewhere.example' } });
    expect(refused.status).to.equal(403);
    expect(refused.headers.get('content-security-policy')).to.include("frame-ancestors 'none'");
  });

  it('needs no token', () => expect(server.token).to.equal(null));

  it('bounds the event streams of one client', async () => {
    const tile = await server.makeTile();
    const { crate } = (await server.ask('POST', `/api/tiles/${tile.id}/crates`)).body;
    const at = `${server.url}/api/crates/${crate.id}/events`;
    const leave = new AbortController();
    const streams = [];
    for (let k = 0; k < 32; k++) streams.push(await fetch(at, { signal: leave.signal }));
    expect(streams.every(({ status }) => status === 200)).to.equal(true);
    const refused = await fetch(at);
    expect(refused.status).to.equal(429);
    expect((await refused.json()).error.code).to.equal('too_many_streams');
    leave.abort();
    // The server notices closed connections a moment later.
    for (let status = 429; status === 429; ) {
      const again = await fetch(at);
      status = again.status;
      await again.body?.cancel();
    }
    await server.ask('POST', `/api/crates/${crate.id}/stop`);
  });
});

describe('the server beyond loopback', () => {
  let folder = '';
  let server: TestServer;
  let at = '';
  before(async () => {
    folder = await mkdtemp(join(tmpdir(), 'zesty-open-'));
    await writeFile(join(folder, 'index.html'), '<p>The Yard</p>');
    server = await startServer(folder, { host: '0.0.0.0', web: folder });
    at = `http://127.0.0.1:${new URL(server.url).port}`;
  });
  after(async () => {
    await server.end();
    await rm(folder, { recursive: true, force: true });
  });

  it('admits nobody without its token, in words', async () => {
    expect(server.token).to.match(/^[0-9a-f]{48}$/);
    const api = await fetch(`${at}/api/tiles`);
    expect(api.status).to.equal(401);
    expect((await api.json()).error.message).to.equal('This server asks for its token.');
    const page = await fetch(`${at}/`);
    expect(page.status).to.equal(401);
    expect(await page.text()).to.include('printed when the');
    for (const wrong of ['', 'x', 'f'.repeat(48), `${server.token}0`]) {
      expect((await fetch(`${at}/?token=${wrong}`)).status, wrong).to.equal(401);
      const headers = { Cookie: `zesty_token=${wrong}`, Authorization: `Bearer ${wrong}` };
      expect((await fetch(`${at}/api/tiles`, { headers })).status, wrong).to.equal(401);
    }
  });

  it('keeps the token of the printed address in a cookie that no script reads', async () => {
    const first = await fetch(`${at}/?token=${server.token}`, { redirect: 'manual' });
    expect([first.status, first.headers.get('location')]).to.deep.equal([303, '/']);
    const cookie = first.headers.get('set-cookie') ?? '';
    expect(cookie)
      .to.match(/HttpOnly/)
      .and.to.match(/SameSite=Lax/);
    const headers = { Cookie: cookie.split(';')[0] };
    expect(await (await fetch(`${at}/`, { headers })).text()).to.include('The Yard');
    expect((await fetch(`${at}/api/tiles`, { headers })).status).to.equal(200);
    const bearer = { Authorization: `Bearer ${server.token}` };
    expect((await fetch(`${at}/api/tiles`, { headers: bearer })).status).to.equal(200);
    // Only its owner can read the file of the token.
    expect((await stat(join(folder, 'token'))).mode & 0o077).to.equal(0);
  });

  it('still answers only to the names and addresses of this machine', async () => {
    const { host, port } = new URL(server.url);
    const headers = { Authorization: `Bearer ${server.token}` };
    for (const own of [host, `127.0.0.1:${port}`, `${hostname()}:${port}`]) {
      expect(await rawStatus(`${at}/api/tiles`, { Host: own, ...headers }), own).to.equal(200);
    }
    const rebound = { Host: `rebound.example:${port}`, ...headers };
    expect(await rawStatus(`${at}/api/tiles`, rebound)).to.equal(403);
  });
});
