import { execFileSync } from 'node:child_process';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sha256Of } from '@zesty-tile/codecs';
import { Problem } from '@zesty-tile/core';
import { expect } from 'chai';
import { picture } from '../../codecs/test/pictures.ts';
import { Budget } from '../src/budget.ts';
import { SECONDS } from '../src/pool/limits.ts';
import { Pool } from '../src/pool/pool.ts';
import { MemoryWatch } from '../src/pool/watch.ts';

const problemOf = (work: Promise<unknown>): Promise<Problem> =>
  work.then(
    () => expect.fail('it went through'),
    (error) => {
      expect(error).to.be.instanceOf(Problem);
      return error;
    },
  );

describe('the pool of threads', () => {
  let folder = '';
  before(async () => {
    folder = await mkdtemp(join(tmpdir(), 'zesty-pool-'));
  });
  after(() => rm(folder, { recursive: true, force: true }));

  async function stored(width: number, height: number) {
    const bytes = await picture(width, height).png().toBuffer();
    const sha256 = sha256Of(bytes);
    const path = join(folder, sha256);
    await writeFile(path, bytes);
    return { sha256, width, height, bits: 8, path };
  }

  it('ends a task that takes too long, says so, and goes on', async () => {
    const pool = new Pool(1, { ...SECONDS, decode: 0.02 });
    try {
      const large = await stored(4000, 3000);
      const { code, message } = await problemOf(pool.pixels({ source: large, shortEdge: 64, as: 'colour' }));
      expect([code, message]).to.deep.equal([
        'too_slow',
        'The work took longer than 0.02 s and was stopped.',
      ]);
      expect(await pool.health()).to.deep.equal({ answers: true, running: 0, waiting: 0 });
      const { facts } = await pool.facts({ path: large.path, bytes: 1000 });
      expect(facts).to.include({ width: 4000, height: 3000, format: 'PNG' });
    } finally {
      await pool.close();
    }
  });

  it('is reported where its threads do no work, and well again when they do', async () => {
    const pool = new Pool(1);
    const pipes = Array.from({ length: 4 }, (_, k) => join(folder, `pipe-${k}`));
    try {
      await pool.facts({ path: (await stored(64, 64)).path, bytes: 1000 });
      expect((await pool.health()).answers).to.equal(true);
      execFileSync('mkfifo', pipes);
      // Each holds one of the four threads in which the system's calls wait.
      const held = pipes.map((pipe) => readFile(pipe));
      expect((await pool.health()).answers).to.equal(false);
      for (const pipe of pipes) execFileSync('sh', ['-c', `echo done > '${pipe}'`]);
      await Promise.all(held);
      expect((await pool.health()).answers).to.equal(true);
    } finally {
      await pool.close();
    }
  });

  it('answers again for a picture whose samples it has handed out', async () => {
    const pool = new Pool(1);
    try {
      const source = await stored(96, 64);
      const ask = (shortEdge: number) => pool.pixels({ source, shortEdge, as: 'colour' });
      const first = await ask(64);
      const again = await ask(64);
      expect(first.data).to.deep.equal(again.data);
      expect(first.data.byteLength).to.equal(96 * 64 * 3);
      expect((await ask(32)).width).to.equal(48);
    } finally {
      await pool.close();
    }
  });
});

describe('a budget', () => {
  it('serves in order, never more at once than there is, and something too large alone', async () => {
    const budget = new Budget(10);
    const served: string[] = [];
    const take = async (name: string, amount: number) => {
      const release = await budget.take(amount);
      served.push(name);
      return release;
    };
    const a = await take('a', 6);
    const b = take('b', 6);
    const c = take('c', 1);
    const d = take('d', 100);
    await Promise.resolve();
    expect([served, budget.waiting]).to.deep.equal([['a'], 3]);
    a();
    a();
    const releaseB = await b;
    const releaseC = await c;
    expect(served).to.deep.equal(['a', 'b', 'c']);
    releaseB();
    releaseC();
    (await d)();
    expect(served).to.deep.equal(['a', 'b', 'c', 'd']);
  });

  it('ends a wait by its signal or its patience; those behind move up', async () => {
    const budget = new Budget(1, { patienceMs: 20 });
    const first = await budget.take(1);
    const leave = new AbortController();
    const left = budget.take(1, leave.signal).catch((error) => error);
    const late = budget.take(1).catch((error) => error);
    leave.abort(new Error('gone'));
    expect((await left).message).to.equal('gone');
    expect((await late).code).to.equal('busy');
    expect(budget.waiting).to.equal(0);
    first();
    (await budget.take(1))();
    expect((await budget.take(1, leave.signal).catch((error) => error)).message).to.equal('gone');
  });
});

describe('the watch over memory', () => {
  it('stops the largest task when the process takes more than all were estimated to need', () => {
    const GB = 2 ** 30;
    let rss = GB;
    const stopped: string[] = [];
    const watch = new MemoryWatch(() => rss);
    const task = (name: string, bytes: number) => ({ bytes, stop: () => stopped.push(name) });
    const [small, large] = [task('small', 0.1 * GB), task('large', 0.5 * GB)];
    watch.add(small);
    watch.add(large);
    rss = 3 * GB;
    watch.look();
    watch.look();
    expect(stopped, 'within the estimates').to.deep.equal([]);
    rss = 6 * GB;
    watch.look();
    expect(stopped, 'one peak').to.deep.equal([]);
    watch.look();
    expect(stopped).to.deep.equal(['large']);
    watch.remove(large);
    watch.remove(small);
  });
});
