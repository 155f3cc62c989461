import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { decodePicture, sha256Of } from '@zesty-tile/codecs';
import { expect } from 'chai';
import sharp from 'sharp';
import { exrFile } from '../../codecs/test/exr-file.ts';
import { waveNormals } from '../../codecs/test/normals.ts';
import { picture } from '../../codecs/test/pictures.ts';
import { inFolder, zesty } from './run.ts';

const oneLine = (text: string) => expect(text.trim().split('\n')).to.have.length(1);

describe('zesty bake, from sources of every kind', () => {
  it('carries alpha to an opacity map and a glow to an emission map, and takes 16-bit grey and CMYK', () =>
    inFolder(async (folder) => {
      const alpha = join(folder, 'leaf.png');
      await picture(300, 300, 4).png().toFile(alpha);
      expect((await zesty('bake', alpha, '--out', folder, '--size', '256', '--quiet')).code).to.equal(0);
      expect((await sharp(join(folder, 'leaf_opacity.png')).metadata()).channels).to.equal(1);
      const glow = ['--role', `emission=${join(folder, 'glow.png')}`];
      await picture(300, 300).png().toFile(join(folder, 'glow.png'));
      const bake = ['bake', alpha, '--out', folder, '--size', '256', '--quiet', '--name', 'lamp', ...glow];
      expect((await zesty(...bake)).code).to.equal(0);
      expect((await sharp(join(folder, 'lamp_emission.png')).metadata()).channels).to.equal(3);
      // What is there already is seen before anything is computed.
      const { code: again, err: why } = await zesty(...bake);
      expect(again).to.equal(2);
      expect(why).to.include('lamp_albedo.png exists');
      const grey = join(folder, 'grey.tif');
      const values = Uint16Array.from({ length: 300 * 300 }, (_, i) => 20000 + 60 * (i % 300));
      await sharp(values, { raw: { width: 300, height: 300, channels: 1 } })
        .toColourspace('grey16')
        .tiff({ compression: 'lzw' })
        .toFile(grey);
      const { code, err } = await zesty('bake', grey, '--out', folder, '--size', '256', '--quiet');
      expect([code, err]).to.deep.equal([0, '']);
      const cmyk = join(folder, 'ink.jpg');
      await picture(300, 300).toColourspace('cmyk').jpeg().toFile(cmyk);
      expect((await zesty('bake', cmyk, '--out', folder, '--size', '256', '--quiet')).code).to.equal(0);
    }));

  it('takes given maps in place of derived ones, and says so in the manifest', () =>
    inFolder(async (folder) => {
      const photo = join(folder, 'wall.png');
      await picture(400, 320).png().toFile(photo);
      const flat = join(folder, 'flat.png');
      await sharp({ create: { width: 200, height: 160, channels: 3, background: '#4d4d4d' } })
        .png()
        .toFile(flat);
      const out = join(folder, 'out');
      const roles = ['--role', `height=${flat}`, '--role', `roughness=${flat}`];
      const { code, err } = await zesty('bake', photo, '--out', out, '--size', '256', '--quiet', ...roles);
      expect([code, err]).to.deep.equal([0, '']);
      const of = async (map: string) =>
        (await decodePicture(await readFile(join(out, `wall_${map}.png`)))).data;
      expect(new Set(await of('roughness'))).to.deep.equal(new Set([0x4d]));
      const normal = await of('normal');
      expect([normal[0], normal[1], normal[2]]).to.deep.equal([128, 128, 255]);
      const manifest = JSON.parse(await readFile(join(out, 'wall.tile.json'), 'utf8'));
      const sha256 = sha256Of(await readFile(flat));
      expect(manifest.given).to.deep.equal({ height: sha256, roughness: sha256 });
      for (const [role, words] of [
        [`albedo=${flat}`, /normal, height/],
        ['height', /takes <map>=<file>/],
        [`height=${join(folder, 'none.png')}`, /no such file/],
        [`height=${join(out, 'wall_height.png')}`, /cannot show the same view/],
      ] as const) {
        const refused = await zesty('bake', photo, '--out', join(folder, 'no'), '--role', role);
        expect(refused.code, role).to.equal(2);
        expect(refused.err).to.match(words);
        oneLine(refused.err);
      }
    }));

  it('reads OpenEXR as photo and as a given height, and keeps origin and licence', () =>
    inFolder(async (folder) => {
      const photo = join(folder, 'wall.exr');
      await writeFile(photo, exrFile(120, 96, { R: (x) => x / 200, G: () => 0.2, B: (_x, y) => y / 200 }));
      const depth = join(folder, 'depth.exr');
      await writeFile(depth, exrFile(120, 96, { Y: (x) => 3 * x - 40 }));
      const { code, err } = await zesty(
        'bake',
        photo,
        '--out',
        folder,
        '--size',
        '256',
        '--quiet',
        '--role',
        `height=${depth}`,
        '--origin',
        'rendered at the lemon house',
        '--licence',
        'own',
      );
      expect([code, err]).to.deep.equal([0, '']);
      const manifest = JSON.parse(await readFile(join(folder, 'wall.tile.json'), 'utf8'));
      expect(manifest.source).to.include({ origin: 'rendered at the lemon house', licence: 'own' });
      expect(Object.keys(manifest.given)).to.deep.equal(['height']);
      // The recipe knows which map was given, but a recipe holds no file.
      const recipe = join(folder, 'wall.json');
      await writeFile(recipe, JSON.stringify(manifest.recipe));
      const without = await zesty('bake', photo, '--out', join(folder, 'no'), '--recipe', recipe);
      expect(without.code).to.equal(2);
      expect(without.err).to.match(/made with a supplied height \(depth\.exr\).*--role height=/);
      oneLine(without.err);
      const again = ['--recipe', recipe, '--role', `height=${depth}`, '--force', '--quiet'];
      const before = await readFile(join(folder, 'wall_height.png'));
      expect((await zesty('bake', photo, '--out', folder, ...again)).code).to.equal(0);
      expect(Buffer.compare(await readFile(join(folder, 'wall_height.png')), before)).to.equal(0);
    }));

  it('refuses a grey picture as a normal map, and says where the green of a real one seems to point', () =>
    inFolder(async (folder) => {
      const photo = join(folder, 'wall.png');
      await picture(400, 320).png().toFile(photo);
      const grey = join(folder, 'grey.png');
      await sharp({ create: { width: 200, height: 160, channels: 3, background: '#808080' } })
        .png()
        .toFile(grey);
      const refused = await zesty('bake', photo, '--out', join(folder, 'no'), '--role', `normal=${grey}`);
      expect(refused.code).to.equal(2);
      expect(refused.err).to.match(/no normal map: its colours are no directions/);
      oneLine(refused.err);
      const normals = join(folder, 'waves.png');
      await writeFile(normals, await waveNormals('down'));
      const square = join(folder, 'square.png');
      await picture(128, 128).png().toFile(square);
      const bake = (...more: string[]) =>
        zesty(
          'bake',
          square,
          '--out',
          folder,
          '--size',
          '256',
          '--force',
          '--role',
          `normal=${normals}`,
          ...more,
        );
      const said = await bake();
      expect(said.code).to.equal(0);
      expect(said.err).to.match(/seems to point down; if so, add --set source\.givenGreen=down/);
      expect((await bake('--set', 'source.givenGreen=down')).err).to.not.match(/seems to point/);
    }));
});
