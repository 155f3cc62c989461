import { mkdir, mkdtemp, rm, utimes, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { builtEntry, isBuilt } from '@zesty-tile/codecs/built';
import { expect } from 'chai';

/** Seconds of a file's date. */
const EARLY = 1000;
const LATE = 2000;

describe('what is built of a room', () => {
  let folder: string;
  before(async () => {
    folder = await mkdtemp(join(tmpdir(), 'zesty-built-'));
  });
  after(() => rm(folder, { recursive: true, force: true }));

  it('is used only where it is there and no source is newer, however deep it stands', async () => {
    const [room, below] = [join(folder, 'room'), join(folder, 'below')];
    const sources = join(room, 'src');
    const deep = join(sources, 'stations', 'one.ts');
    const under = join(below, 'two.ts');
    await mkdir(join(sources, 'stations'), { recursive: true });
    await mkdir(below);
    await writeFile(deep, '');
    await writeFile(under, '');
    const date = (path: string, seconds: number) => utimes(path, seconds, seconds);
    for (const path of [deep, join(sources, 'stations'), sources, under, below]) await date(path, EARLY);
    expect(isBuilt(room, [below])).to.equal(false);
    await mkdir(join(room, 'dist'));
    await writeFile(builtEntry(room), '');
    await date(builtEntry(room), LATE);
    expect(isBuilt(room, [below])).to.equal(true);
    for (const path of [deep, under]) {
      await date(path, LATE + 1);
      expect(isBuilt(room, [below]), path).to.equal(false);
      await date(path, EARLY);
    }
    // One that was removed is missed too.
    await date(sources, LATE + 1);
    expect(isBuilt(room, [below])).to.equal(false);
  });
});
