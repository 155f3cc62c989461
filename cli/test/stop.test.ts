import { spawn } from 'node:child_process';
import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { sha256Of } from '@zesty-tile/codecs';
import { Stopped } from '@zesty-tile/core';
import { expect } from 'chai';
import { picture } from '../../codecs/test/pictures.ts';
import { type BakeOptions, bakeOne } from '../src/bake.ts';
import { inFolder, zesty } from './run.ts';

const ZESTY = fileURLToPath(new URL('../bin/zesty.mjs', import.meta.url));

const options = (out: string): BakeOptions => ({
  out,
  set: ['square.size=256', 'crate.profile=two-maps'],
  role: [],
  picture: [],
  shot: [],
  force: true,
  auto: false,
  json: false,
  quiet: true,
});

describe('a bake that is broken off', () => {
  it('at any station, or while it writes, leaves nothing behind', () =>
    inFolder(async (folder) => {
      const path = join(folder, 'wall.png');
      await picture(300, 300).png().toFile(path);
      const out = join(folder, 'out');
      for (const moment of ['source', 'join', 'relief', 'crate', 'writing wall_normal']) {
        const stop = new AbortController();
        const line = (text: string) => {
          if (text.startsWith(moment)) stop.abort(new Stopped());
        };
        const error = await bakeOne({ path, roles: [], name: 'wall' }, options(out), line, stop.signal).then(
          () => null,
          (reason) => reason,
        );
        // What was done by the time it was asked to stop may be finished; else nothing is there.
        if (error) expect(error, moment).to.be.instanceOf(Stopped);
        else expect(moment).to.equal('crate');
        const left = (await readdir(folder)).filter((name) => name !== 'wall.png' && name !== 'out');
        expect(left, moment).to.deep.equal([]);
        if (error) expect(await readdir(folder), moment).not.to.include('out');
      }
    })).timeout(180_000);

  it('by a kill, in the middle of the work or of the writing, goes through the next time', () =>
    inFolder(async (folder) => {
      const path = join(folder, 'wall.png');
      await picture(300, 300).png().toFile(path);
      const out = join(folder, 'out');
      const call = ['bake', path, '--out', out, '--size', '256', '--force'];
      for (const moment of ['relief', 'writing wall_normal']) {
        const child = spawn(process.execPath, [ZESTY, ...call]);
        const ended = new Promise((resolve) => child.once('exit', resolve));
        child.stderr.on('data', (text: Buffer) => {
          if (text.toString().includes(moment)) child.kill('SIGKILL');
        });
        await ended;
        // Out of sight lies what it had made; nothing that could be taken for a set.
        expect(
          (await readdir(out)).filter((name) => !name.startsWith('.')),
          moment,
        ).to.deep.equal([]);
      }
      expect((await zesty(...call, '--quiet')).code).to.equal(0);
      const names = await readdir(out);
      expect(names.filter((name) => name.startsWith('.'))).to.deep.equal([]);
      const manifest = JSON.parse(await readFile(join(out, 'wall.tile.json'), 'utf8'));
      for (const { file, sha256 } of manifest.files)
        expect(sha256Of(await readFile(join(out, file))), file).to.equal(sha256);
    })).timeout(180_000);
});
