import { execFileSync, spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { chmod, mkdir, mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { hostname, tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { sha256Of } from '@zesty-tile/codecs';
import { Problem } from '@zesty-tile/core';
import { recoverFolder, stageSet } from '@zesty-tile/crates';
import { expect } from 'chai';
import { NAMES, placeNext } from './placer.ts';

const PLACER = fileURLToPath(new URL('./placer.ts', import.meta.url));

/** Which set is in a folder; null where there is no manifest. @throws where it speaks of other files. */
async function turnIn(folder: string): Promise<number | null> {
  const text = await readFile(join(folder, 'a.tile.json'), 'utf8').catch(() => null);
  if (!text) return null;
  const { turn, files } = JSON.parse(text);
  for (const { file, sha256 } of files)
    expect(sha256Of(await readFile(join(folder, file))), `${file} of set ${turn}`).to.equal(sha256);
  return turn;
}

const failing = (work: Promise<unknown>): Promise<Problem> =>
  work.then(
    () => expect.fail('went through'),
    (error) => error,
  );

describe('a set placed in a folder', () => {
  let folder = '';
  beforeEach(async () => {
    folder = await mkdtemp(join(tmpdir(), 'zesty-place-'));
  });
  afterEach(async () => {
    await rm(folder, { recursive: true, force: true });
  });

  it('is out of sight until it is whole, and refuses what is there unless told', async () => {
    const staging = await stageSet(folder);
    await staging.put('a.png', Uint8Array.of(1));
    expect((await readdir(folder)).filter((name) => !name.startsWith('.'))).to.deep.equal([]);
    await staging.put('a.tile.json', new TextEncoder().encode('{"files":[{"file":"a.png"}]}'));
    await writeFile(join(folder, 'a.png'), 'mine');
    const names = ['a.png', 'a.tile.json'];
    const problem = await failing(staging.place(names, { replace: false, keep: false }));
    expect([problem.code, problem.message]).to.deep.equal([
      'exists',
      `a.png exists in ${folder}; nothing was written.`,
    ]);
    expect(await readFile(join(folder, 'a.png'), 'utf8')).to.equal('mine');
    await staging.place(names, { replace: true, keep: false });
    expect((await readdir(folder)).sort()).to.deep.equal(names);
  });

  it('keeps the former one beside it, and leaves nothing of it among the new', async () => {
    await writeFile(join(folder, 'other.txt'), 'not of the set');
    await placeNext(folder, 1);
    await placeNext(folder, 2);
    const staging = await stageSet(folder);
    await staging.put('a.png', Uint8Array.of(7));
    await staging.put('a.tile.json', new TextEncoder().encode('{"files":[{"file":"a.png"}]}'));
    await staging.place(['a.png', 'a.tile.json'], { replace: true, keep: true });
    // b and c were of the set before, and are no longer.
    expect((await readdir(folder)).sort()).to.deep.equal(['a.png', 'a.tile.json', 'former', 'other.txt']);
    expect(await turnIn(join(folder, 'former', 'a'))).to.equal(2);
    expect((await readdir(join(folder, 'former', 'a'))).sort()).to.deep.equal([...NAMES].sort());
  });

  it('that is dropped leaves a folder as it was, or none where there was none', async () => {
    const inner = join(folder, 'one', 'two');
    const staging = await stageSet(inner);
    await staging.put('a.png', Uint8Array.of(1));
    await staging.drop();
    expect(await readdir(folder)).to.deep.equal([]);
  });

  it('a manifest from elsewhere cannot have files outside its folder taken away', async () => {
    const victim = join(folder, 'victim.txt');
    const inner = join(folder, 'in');
    await mkdir(inner);
    await writeFile(victim, 'stays');
    await writeFile(join(inner, 'a.tile.json'), JSON.stringify({ files: [{ file: '../victim.txt' }, {}] }));
    await placeNext(inner, 1);
    expect(await readFile(victim, 'utf8')).to.equal('stays');
  });

  it('a foreign journal or manifest can touch nothing outside its folder, nor a folder in it', async () => {
    const victim = join(folder, 'victim.txt');
    const inner = join(folder, 'in');
    const kept = join(inner, 'former', 'kept.txt');
    await mkdir(join(inner, 'former'), { recursive: true });
    await writeFile(victim, 'stays');
    await writeFile(kept, 'stays');
    const journals = [
      { names: ['a.tile.json'], stale: ['../victim.txt'], keep: false },
      { names: ['../victim.txt', 'a.tile.json'], stale: [], keep: false },
      { names: ['...tile.json'], stale: [], keep: true },
      { names: ['.tile.json'], stale: [], keep: true },
      { names: ['a.tile.json'], stale: [victim], keep: false },
      { names: [], stale: ['a'], keep: false },
      { names: 'a.tile.json', stale: null },
      null,
    ];
    for (const journal of journals) {
      const staging = join(inner, `.zesty-${hostname()}-999999-${randomUUID()}.part`);
      await mkdir(join(staging, 'old'), { recursive: true });
      await writeFile(join(staging, 'placing.json'), JSON.stringify(journal));
      await recoverFolder(inner);
      const words = JSON.stringify(journal);
      expect(await readFile(victim, 'utf8'), words).to.equal('stays');
      expect(await readFile(kept, 'utf8'), words).to.equal('stays');
      // It is not ours: it is left as it is.
      expect(await readdir(staging), words).to.include('placing.json');
      await rm(staging, { recursive: true });
    }
    const files = [
      { file: 'former' },
      { file: '..' },
      { file: '.' },
      { file: '' },
      { file: 'x/../../victim.txt' },
    ];
    await writeFile(join(inner, 'a.tile.json'), JSON.stringify({ files }));
    await placeNext(inner, 1);
    expect(await readFile(victim, 'utf8')).to.equal('stays');
    expect(await readFile(kept, 'utf8')).to.equal('stays');
  });

  it('killed at six moments: what has a manifest is whole, and the next run goes through', async function () {
    this.timeout(300_000);
    await placeNext(folder, 0);
    let seed = 20;
    const random = () => {
      seed = (1103515245 * seed + 12345) % 2 ** 31;
      return seed / 2 ** 31;
    };
    let last = 0;
    let cut = 0;
    for (let k = 0; k < 6; k++) {
      const child = spawn(process.execPath, ['--import', 'tsx', PLACER, folder], {
        stdio: ['ignore', 'pipe', 'inherit'],
      });
      // Once it is at work, at any moment of its second set.
      await new Promise((resolve) => child.stdout.once('data', resolve));
      await new Promise((resolve) => setTimeout(resolve, 12 * random()));
      const gone = new Promise((resolve) => child.once('exit', resolve));
      child.kill('SIGKILL');
      await gone;
      const there = await turnIn(folder);
      const left = (await readdir(folder)).filter((name) => name.startsWith('.zesty-'));
      cut += left.length;
      // Where it was cut between the old and the new, the old is whole out of sight.
      if (there === null) {
        expect(left).to.have.length(1);
        expect(await turnIn(join(folder, left[0], 'old'))).to.be.a('number');
      }
      await recoverFolder(folder);
      const now = await turnIn(folder);
      expect(now).to.be.a('number');
      expect((await readdir(folder)).filter((name) => name.startsWith('.zesty-'))).to.deep.equal([]);
      last = now ?? 0;
    }
    expect(last).to.be.above(0);
    expect(cut, 'kills that came in the middle of a set').to.be.above(0);
  });

  it('on a full disk leaves the old one whole and says so', async function () {
    const disk = join(folder, 'disk');
    await mkdir(disk);
    try {
      execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=1m', 'tmpfs', disk], { stdio: 'ignore' });
    } catch {
      // Only the system's own user may mount a small disk.
      this.skip();
    }
    try {
      await placeNext(disk, 1, 100_000);
      const problem = await failing(placeNext(disk, 2, 400_000));
      expect(problem).to.be.instanceOf(Problem);
      expect([problem.code, problem.message]).to.deep.equal([
        'disk_full',
        'The disk of “disk” is full; what was there before is whole.',
      ]);
      expect(await turnIn(disk)).to.equal(1);
      expect((await readdir(disk)).filter((name) => name.startsWith('.'))).to.deep.equal([]);
      await placeNext(disk, 3, 100_000);
      expect(await turnIn(disk)).to.equal(3);
    } finally {
      execFileSync('umount', [disk]);
    }
  });

  it('says where nothing may be written, and where a file is in the place of a folder', async () => {
    const closed = join(folder, 'closed');
    await mkdir(closed, { mode: 0o555 });
    await chmod(closed, 0o555);
    await chmod(folder, 0o755);
    const own = process.geteuid?.() ?? 1;
    // The system's own user may write anywhere.
    if (own === 0) process.seteuid?.(65534);
    try {
      const problem = await failing(stageSet(join(closed, 'out')));
      expect([problem.code, problem.message]).to.deep.equal([
        'no_permission',
        'Nothing may be written in “out”.',
      ]);
    } finally {
      if (own === 0) process.seteuid?.(0);
    }
    await writeFile(join(folder, 'file'), '');
    expect((await failing(stageSet(join(folder, 'file', 'out')))).code).to.equal('no_folder');
  });
});
