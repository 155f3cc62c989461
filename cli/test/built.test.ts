import { mkdir, utimes, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { expect } from 'chai';
import { isBuilt } from '../bin/built.mjs';
import { inFolder } from './run.ts';

/** Seconds of a file's date. */
const EARLY = 1000;
const LATE = 2000;

describe('the built command line', () => {
  it('is used only where it is there and no source is newer, however deep it stands', () =>
    inFolder(async (folder) => {
      const [built, sources] = [join(folder, 'main.js'), join(folder, 'src')];
      const deep = join(sources, 'stations', 'one.ts');
      await mkdir(join(sources, 'stations'), { recursive: true });
      await writeFile(deep, '');
      const date = (path: string, seconds: number) => utimes(path, seconds, seconds);
      for (const path of [deep, join(sources, 'stations'), sources]) await date(path, EARLY);
      expect(isBuilt(built, [sources])).to.equal(false);
      await writeFile(built, '');
      await date(built, LATE);
      expect(isBuilt(built, [sources])).to.equal(true);
      await date(deep, LATE + 1);
      expect(isBuilt(built, [sources])).to.equal(false);
      await date(deep, EARLY);
      // One that was taken away is missed too.
      await date(sources, LATE + 1);
      expect(isBuilt(built, [sources])).to.equal(false);
    }));
});
