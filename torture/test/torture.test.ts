import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from 'chai';
import { createApp, type Parts } from '../../server/src/app.ts';
import { routesOf } from '../src/fuzz.ts';
import { TRIALS } from '../src/trials.ts';

const SEED = 7;

describe('torture, in its short form', () => {
  for (const [name, { trial, short }] of Object.entries(TRIALS)) {
    it(`holds: ${name}`, async () => {
      const folder = await mkdtemp(join(tmpdir(), `zesty-${name}-`));
      try {
        const { tried, held, failures, figures } = await trial({ seed: SEED, count: short, folder });
        expect(failures.join('\n')).to.equal('');
        expect(held).to.equal(tried);
        if (!('skipped' in figures)) expect(tried).to.be.at.least(short);
      } finally {
        await rm(folder, { recursive: true, force: true });
      }
    }).timeout(300_000);
  }
});

describe('the trial of random requests', () => {
  it('knows every route of the server', () => {
    const plain = (path: string) =>
      path
        .replace(/^\/api/, '')
        .replace(/\?.*$/, '')
        .replaceAll(/:\w+/g, ':id');
    const served = createApp({ host: '127.0.0.1', token: null, web: null } as Parts)
      .routes.filter(({ method, path }) => method !== 'ALL' && path.startsWith('/api'))
      .map(({ method, path }) => `${method} ${plain(path)}`);
    const tried = routesOf({ tile: '', project: '', source: '' }).map(
      ({ method, path }) => `${method} ${plain(path)}`,
    );
    // A stream of events ends with its crate; its bounds are tested with those of the network.
    const known = [...tried, 'GET /crates/:id/events'];
    expect([...new Set(served)].filter((route) => !known.includes(route))).to.deep.equal([]);
    expect(served.length).to.be.above(50);
  });
});
