import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { newRecipe } from '@zesty-tile/core';
import { expect } from 'chai';
import sharp from 'sharp';
import { picture } from '../../codecs/test/pictures.ts';
import { inFolder, zesty } from './run.ts';

describe('zesty stations, check, recipe check', () => {
  it('lists every setting with its range, default and help', async () => {
    const { code, out } = await zesty('stations', '--json');
    expect(code).to.equal(0);
    const rows = JSON.parse(out);
    const size = rows.find((row: { key: string }) => row.key === 'square.size');
    expect(size).to.deep.include({ station: 'square', type: 'choice', default: 1024 });
    expect(size.options).to.include(4096);
    const amount = rows.find((row: { key: string }) => row.key === 'even.amount');
    expect(amount).to.deep.include({ type: 'number', min: 0, max: 1, default: 1 });
    expect((await zesty('stations')).out).to.include('relief.depthMm');
  });

  it('measures a picture taken as a tile', () =>
    inFolder(async (folder) => {
      const tiling = join(folder, 'tiling.png');
      const wave = new Uint8Array(128 * 128 * 3);
      for (let i = 0; i < 128 * 128; i++) {
        const v =
          120 +
          50 * Math.cos((2 * Math.PI * 3 * (i % 128)) / 128) +
          40 * Math.cos((2 * Math.PI * 2 * Math.floor(i / 128)) / 128);
        wave.fill(v, 3 * i, 3 * i + 3);
      }
      await sharp(wave, { raw: { width: 128, height: 128, channels: 3 } })
        .png()
        .toFile(tiling);
      const yes = JSON.parse((await zesty('check', tiling, '--json')).out);
      expect(yes).to.include({ width: 128, powerOfTwo: true, tiles: true });
      expect(yes.repeats).to.deep.equal([]);
      const slope = join(folder, 'slope.png');
      await picture(96, 64).png().toFile(slope);
      const no = JSON.parse((await zesty('check', slope, '--json')).out);
      expect(no).to.include({ powerOfTwo: false, tiles: false });
      expect(no.seamX).to.be.above(10);
      expect((await zesty('check', slope)).out).to.match(/tiles +no/);
    }));

  it('says what is wrong with a recipe, or that nothing is', () =>
    inFolder(async (folder) => {
      const file = join(folder, 'r.json');
      await writeFile(file, JSON.stringify(newRecipe()));
      const sound = await zesty('recipe', 'check', file);
      expect([sound.code, sound.out.trim()]).to.deep.equal([0, 'The recipe is valid.']);
      await writeFile(
        file,
        JSON.stringify({ version: 1, stations: { join: { method: 'glue', overlop: 1 } } }),
      );
      const wrong = await zesty('recipe', 'check', file);
      expect(wrong.code).to.equal(2);
      expect(wrong.err)
        .to.match(/join.method/)
        .and.match(/overlop/);
    }));
});
