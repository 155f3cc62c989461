import { mkdir, readdir, readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { sha256Of } from '@zesty-tile/codecs';
import { expect } from 'chai';
import sharp from 'sharp';
import { picture } from '../../codecs/test/pictures.ts';
import { inFolder, zesty } from './run.ts';

const oneLine = (text: string) => expect(text.trim().split('\n')).to.have.length(1);

describe('zesty bake, of many and again', () => {
  it('overwrites nothing unasked', () =>
    inFolder(async (folder) => {
      const photo = join(folder, 'wall.png');
      await picture(300, 300).png().toFile(photo);
      await writeFile(join(folder, 'wall_height.png'), 'mine');
      const refused = await zesty('bake', photo, '--out', folder, '--size', '256', '--quiet');
      expect(refused.code).to.equal(2);
      expect(refused.err).to.match(/wall_height.png exists.*--force/);
      oneLine(refused.err);
      expect(await readFile(join(folder, 'wall_height.png'), 'utf8')).to.equal('mine');
      expect((await readdir(folder)).sort()).to.deep.equal(['wall.png', 'wall_height.png']);
      expect(
        (await zesty('bake', photo, '--out', folder, '--size', '256', '--quiet', '--force')).code,
      ).to.equal(0);
      expect((await sharp(join(folder, 'wall_height.png')).metadata()).width).to.equal(256);
    }));

  it('bakes several pictures and a folder with its sets in one go; one that fails holds up no other', () =>
    inFolder(async (folder) => {
      const shots = join(folder, 'shots');
      await mkdir(shots);
      await picture(300, 300).png().toFile(join(folder, 'alone.png'));
      await picture(300, 300).png().toFile(join(shots, 'steps_color.png'));
      await sharp({ create: { width: 300, height: 300, channels: 3, background: '#777' } })
        .png()
        .toFile(join(shots, 'steps_roughness.png'));
      await writeFile(join(shots, 'bad.jpg'), 'no picture');
      const out = join(folder, 'out');
      const call = [
        'bake',
        join(folder, 'alone.png'),
        shots,
        '--out',
        out,
        '--size',
        '256',
        '--profile',
        'two-maps',
      ];
      const { code, out: said, err } = await zesty(...call);
      expect(code).to.equal(2);
      expect(err).to.match(/2 of 3, bad: |3 of 3, steps: /);
      const lines = said.trim().split('\n');
      expect(lines).to.have.length(4);
      expect(lines[0]).to.match(/^done {2}alone.tile.json, (fine|look at|wrong)/);
      expect(said).to.match(/not {3}.*bad.jpg: The file is not a picture/);
      expect(lines[3]).to.equal('2 of 3 baked.');
      expect((await readdir(out)).sort()).to.deep.equal(
        ['alone', 'steps'].flatMap((name) => [
          `${name}.tile.json`,
          `${name}_colour.png`,
          `${name}_normal.png`,
        ]),
      );
      const manifest = JSON.parse(await readFile(join(out, 'steps.tile.json'), 'utf8'));
      expect(Object.keys(manifest.given)).to.deep.equal(['roughness']);
      const again = await zesty(
        ...call,
        '--json',
        '--quiet',
        '--force',
        '--set',
        'crate.names={tile}_{map}_{crate}',
      );
      const report = JSON.parse(again.out);
      expect([report.done, report.failed]).to.deep.equal([2, 1]);
      expect(report.results[0].files[0].file).to.equal('alone_colour_1.png');
    })).timeout(180000);

  it('counts crates up where names hold their number, and makes one again from its manifest', () =>
    inFolder(async (folder) => {
      await picture(300, 300).png().toFile(join(folder, 'wall.png'));
      const out = join(folder, 'out');
      const call = ['bake', join(folder, 'wall.png'), '--out', out, '--quiet'];
      const numbered = [
        ...call,
        '--size',
        '256',
        '--profile',
        'two-maps',
        '--set',
        'crate.names={tile}_{crate}_{map}',
      ];
      for (let k = 0; k < 2; k++) expect((await zesty(...numbered)).code).to.equal(0);
      expect((await zesty(...call, '--recipe', join(out, 'wall_2.tile.json'))).code).to.equal(0);
      const names = await readdir(out);
      for (const k of [1, 2, 3])
        expect(names).to.include(`wall_${k}.tile.json`).and.include(`wall_${k}_colour.png`);
      const [one, three] = await Promise.all(
        [1, 3].map(async (k) => sha256Of(await readFile(join(out, `wall_${k}_colour.png`)))),
      );
      expect(three).to.equal(one);
    })).timeout(120000);
});
