import { readdir, readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { decodePicture, sha256Of } from '@zesty-tile/codecs';
import { pictureSeams, Raster, srgbToLinear } from '@zesty-tile/core';
import { expect } from 'chai';
import sharp from 'sharp';
import { picture } from '../../codecs/test/pictures.ts';
import { inFolder, zesty } from './run.ts';

const oneLine = (text: string) => expect(text.trim().split('\n')).to.have.length(1);

describe('zesty bake', () => {
  it('writes a whole set that tiles, with a manifest that is true', () =>
    inFolder(async (folder) => {
      const photo = join(folder, 'wall.png');
      await picture(400, 320).png().toFile(photo);
      const out = join(folder, 'out');
      const {
        code,
        out: said,
        err,
      } = await zesty(
        'bake',
        photo,
        '--out',
        out,
        '--size',
        '256',
        '--json',
        '--set',
        'relief.normalY=down',
        '--set',
        'gauge.line=sand-dry',
      );
      expect(code, err).to.equal(0);
      expect(err).to.match(/join \d+ %/);
      const files = [
        'albedo',
        'cavity',
        'height',
        'metallic',
        'normal',
        'occlusion',
        'roughness',
        'specular',
      ].map((m) => `wall_${m}.png`);
      expect((await readdir(out)).sort()).to.deep.equal(['wall.tile.json', ...files].sort());
      const manifest = JSON.parse(await readFile(join(out, 'wall.tile.json'), 'utf8'));
      const report = JSON.parse(said);
      expect(report.files).to.deep.equal(manifest.files);
      expect(manifest).to.deep.include({
        version: 1,
        name: 'wall',
        profile: 'separate',
        size: 256,
        edgeMetres: 1,
        reliefMm: 8,
      });
      expect(manifest.conventions.normalY).to.equal('-Y');
      expect(manifest.recipe.stations.gauge.line).to.equal('sand-dry');
      expect(manifest.recipe.decisions).to.include.keys('join', 'even');
      for (const file of manifest.files) {
        const bytes = await readFile(join(out, file.file));
        expect(sha256Of(bytes), file.file).to.equal(file.sha256);
        const facts = await sharp(bytes).metadata();
        expect([facts.width, facts.height], file.file).to.deep.equal([256, 256]);
        expect(facts.depth, file.file).to.equal(file.bits === 16 ? 'ushort' : 'uchar');
        expect(facts.channels, file.file).to.equal(file.channels);
        expect(Boolean(facts.icc), file.file).to.equal(file.kind === 'colour');
        expect(file.bits, file.file).to.equal(file.maps[0] === 'height' ? 16 : 8);
      }
      const { data } = await decodePicture(await readFile(join(out, 'wall_albedo.png')));
      const planes = [0, 1, 2].map((c) =>
        Float32Array.from({ length: 256 * 256 }, (_, i) => srgbToLinear(data[3 * i + c] / 255)),
      );
      const seams = pictureSeams(new Raster(256, 256, planes));
      expect(Math.max(seams.seamX, seams.seamY)).to.be.at.most(1);
    }));

  it('sets a picture up by what is measured, says so, and leaves alone what the call chose', () =>
    inFolder(async (folder) => {
      const photo = join(folder, 'wall.png');
      await picture(400, 320).png().toFile(photo);
      const call = ['bake', photo, '--out', join(folder, 'out'), '--auto', '--quiet'];
      const { code, out: said, err } = await zesty(...call, '--json', '--set', 'relief.polarity=dark');
      expect(code, err).to.equal(0);
      const { proposals, recipe, size } = JSON.parse(said);
      expect(size).to.equal(256);
      expect(proposals.map(({ id }: { id: string }) => id)).to.include.members(['size', 'edge', 'material']);
      expect(recipe.stations.relief.polarity).to.equal('dark');
      for (const { settings } of proposals)
        for (const { station, key, after } of settings)
          expect(recipe.stations[station][key], `${station}.${key}`).to.deep.equal(after);

      const again = await zesty(...call, '--force');
      expect(again.out).to.match(/^Set up: Size 256 px\. The photo’s shorter side has 320 px/m);
      expect(again.out).to.match(/^Set up: Edge 1 m \(a guess\)\. /m);

      const both = await zesty(...call, '--recipe', join(folder, 'out', 'wall.tile.json'));
      expect(both.code).to.equal(2);
      expect(both.err).to.match(
        /^--auto measures the picture to find the settings, and --recipe gives them\./,
      );
      expect(both.err.trim().split('\n')).to.have.length(1);
    }));

  it('gives the same bytes again from the manifest’s recipe', () =>
    inFolder(async (folder) => {
      const photo = join(folder, 'wall.png');
      await picture(300, 300).png().toFile(photo);
      const [one, two] = [join(folder, 'one'), join(folder, 'two')];
      expect(
        (await zesty('bake', photo, '--out', one, '--size', '256', '--profile', 'packed', '--name', 'a b'))
          .code,
      ).to.equal(0);
      const manifest = JSON.parse(await readFile(join(one, 'a b.tile.json'), 'utf8'));
      await writeFile(join(folder, 'recipe.json'), JSON.stringify(manifest.recipe));
      expect(
        (await zesty('bake', photo, '--out', two, '--recipe', join(folder, 'recipe.json'), '--name', 'a b'))
          .code,
      ).to.equal(0);
      expect(manifest.files.map((f: { file: string }) => f.file)).to.include(
        'a b_occlusion-roughness-metallic.png',
      );
      for (const { file } of manifest.files) {
        expect(sha256Of(await readFile(join(two, file))), file).to.equal(
          sha256Of(await readFile(join(one, file))),
        );
      }
    }));

  it('makes a tile of 40 pixels as large as it is asked to, and says what it holds', () =>
    inFolder(async (folder) => {
      const photo = join(folder, 'tiny.png');
      await picture(40, 40).png().toFile(photo);
      const { code, out } = await zesty(
        'bake',
        photo,
        '--out',
        folder,
        '--size',
        '2048',
        '--quiet',
        '--json',
      );
      expect(code).to.equal(0);
      const { verdicts, files } = JSON.parse(out);
      expect(files[0].width).to.equal(2048);
      expect(verdicts.source.state).to.equal('look');
      expect(verdicts.source.sentence).to.match(/Shorter side 40 px/);
      expect(verdicts.square.advice).to.match(/smaller size|larger crop/);
    }));

  it('makes tiles of two to one', () =>
    inFolder(async (folder) => {
      const photo = join(folder, 'wall.png');
      await picture(400, 320).png().toFile(photo);
      const shape = ['--set', 'square.shape=2:1', '--size', '256', '--quiet'];
      expect((await zesty('bake', photo, '--out', folder, ...shape)).code).to.equal(0);
      for (const map of ['albedo', 'normal', 'height', 'occlusion']) {
        const { width, height } = await sharp(join(folder, `wall_${map}.png`)).metadata();
        expect([width, height], map).to.deep.equal([256, 128]);
      }
    }));

  it('takes repairs as data, wherever they lead, and refuses what is none in one line', () =>
    inFolder(async (folder) => {
      const photo = join(folder, 'wall.png');
      await picture(400, 320).png().toFile(photo);
      const stroke = {
        kind: 'clone',
        points: [
          [0.2, 0.3],
          [100.2, 0.3],
        ],
        radius: 0.01,
        softness: 0,
        opacity: 1,
        offset: [0.3, 0.4],
      };
      const bake = (repairs: unknown) =>
        zesty(
          'bake',
          photo,
          '--out',
          folder,
          '--size',
          '256',
          '--quiet',
          '--force',
          '--set',
          `join.repairs=${JSON.stringify(repairs)}`,
        );
      const albedo = async () => readFile(join(folder, 'wall_albedo.png'));
      expect((await bake([])).code).to.equal(0);
      const plain = await albedo();
      expect((await bake([stroke])).code).to.equal(0);
      expect(Buffer.compare(await albedo(), plain)).to.not.equal(0);
      const wrong = await bake([{ ...stroke, radius: 7 }]);
      expect(wrong.code).to.equal(2);
      expect(wrong.err).to.match(/join\.repairs takes data such as/);
      oneLine(wrong.err);
    }));
});
