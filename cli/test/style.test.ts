import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { sha256Of } from '@zesty-tile/codecs';
import { expect } from 'chai';
import sharp from 'sharp';
import { picture } from '../../codecs/test/pictures.ts';
import { inFolder, zesty } from './run.ts';

describe('zesty bake with Style', () => {
  it('paints the set by its dials, the same every time, and the manifest says how', () =>
    inFolder(async (folder) => {
      const photo = join(folder, 'wall.png');
      await picture(300, 260).png().toFile(photo);
      const bake = async (name: string, ...dials: string[]) => {
        const out = join(folder, name);
        const sets = dials.flatMap((dial) => ['--set', dial]);
        const { code, err } = await zesty('bake', photo, '--out', out, '--size', '256', '--quiet', ...sets);
        expect(code, err).to.equal(0);
        const file = (map: string) => readFile(join(out, `wall_${map}.png`));
        const manifest = JSON.parse(await readFile(join(out, 'wall.tile.json'), 'utf8'));
        return { albedo: await file('albedo'), normal: await file('normal'), manifest };
      };
      const plain = await bake('plain');
      const painted = await bake('painted', 'style.amount=1', 'style.light=0.8');
      const again = await bake('again', 'style.amount=1', 'style.light=0.8');
      expect(sha256Of(again.albedo)).to.equal(sha256Of(painted.albedo));
      const pixels = (file: Uint8Array) => sharp(file).raw().toBuffer();
      const apart = async (one: Uint8Array, other: Uint8Array) => {
        const [a, b] = [await pixels(one), await pixels(other)];
        return a.reduce((sum, value, i) => sum + Math.abs(value - b[i]), 0) / a.length;
      };
      expect(await apart(painted.albedo, plain.albedo)).to.be.above(2);
      expect(await apart(painted.normal, plain.normal)).to.be.above(0.5);
      expect(painted.manifest.recipe.stations.style.light).to.equal(0.8);
      expect(painted.manifest.recipe.decisions.style.data.strokes).to.be.a('string').with.length.above(1000);
      expect(plain.manifest.recipe.decisions).to.not.include.keys('style');
    }));

  it('keeps the outline of what is cut out', () =>
    inFolder(async (folder) => {
      const photo = join(folder, 'leaf.png');
      const disc = Buffer.from(
        '<svg xmlns="http://www.w3.org/2000/svg" width="256" height="256"><circle cx="128" cy="128" r="80" fill="#5a7a30"/><circle cx="120" cy="110" r="30" fill="#86a050"/></svg>',
      );
      await sharp(disc).png().toFile(photo);
      const opacity = async (name: string, amount: number) => {
        const out = join(folder, name);
        const set = ['square.share=1', 'join.method=none', `style.amount=${amount}`];
        const { code, err } = await zesty(
          ...['bake', photo, '--out', out, '--size', '256', '--quiet'],
          ...set.flatMap((dial) => ['--set', dial]),
        );
        expect(code, err).to.equal(0);
        return readFile(join(out, 'leaf_opacity.png'));
      };
      expect(sha256Of(await opacity('painted', 1))).to.equal(sha256Of(await opacity('plain', 0)));
    }));

  it('says what a dial may be', () =>
    inFolder(async (folder) => {
      const photo = join(folder, 'wall.png');
      await picture(64, 64).png().toFile(photo);
      const { code, err } = await zesty('bake', photo, '--out', folder, '--set', 'style.amount=2');
      expect(code).to.not.equal(0);
      expect(err).to.include('style.amount');
      const bands = await zesty('bake', photo, '--out', folder, '--set', 'style.heightBands=[true]');
      expect(bands.err).to.include('style.heightBands');
    }));
});
