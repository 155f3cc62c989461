import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from 'chai';
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
