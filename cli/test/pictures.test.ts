import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { expect } from 'chai';
import sharp from 'sharp';
import { picture } from '../../codecs/test/pictures.ts';
import { inFolder, zesty } from './run.ts';

/** A grey picture that tiles: bright on the left, dark on the right. */
const halves = (edge: number) =>
  sharp(Buffer.from(Array.from({ length: edge * edge }, (_v, i) => (i % edge < edge / 2 ? 255 : 0))), {
    raw: { width: edge, height: edge, channels: 1 },
  })
    .png()
    .toBuffer();

describe('zesty bake with pictures that tile by themselves', () => {
  it('lays a grey map into the roughness, and asks for its file where a recipe was made with one', () =>
    inFolder(async (folder) => {
      const photo = join(folder, 'photo.png');
      const grey = join(folder, 'smears.png');
      await writeFile(photo, await picture(300, 300).png().toBuffer());
      await writeFile(grey, await halves(64));
      const out = join(folder, 'out');
      const sets = ['finish.tone=0', 'finish.cavity=0', 'finish.grey=1', 'finish.greyCount=2'];
      const { code, err } = await zesty(
        'bake',
        photo,
        '--out',
        out,
        '--size',
        '256',
        '--quiet',
        '--role',
        `grey=${grey}`,
        ...sets.flatMap((set) => ['--set', set]),
      );
      expect(err).to.equal('');
      expect(code).to.equal(0);
      const { data, info } = await sharp(join(out, 'photo_roughness.png'))
        .raw()
        .toBuffer({ resolveWithObject: true });
      const at = (x: number) => data[(100 * 256 + x) * info.channels];
      // Laid twice: bright, dark, bright, dark.
      expect(at(32)).to.be.above(at(96) + 60);
      expect(at(160)).to.be.above(at(224) + 60);
      const manifest = JSON.parse(await readFile(join(out, 'photo.tile.json'), 'utf8'));
      expect(manifest.recipe.stations.finish.greyMap.name).to.equal('smears.png');
      const recipe = join(folder, 'recipe.json');
      await writeFile(recipe, JSON.stringify(manifest.recipe));
      const without = await zesty('bake', photo, '--out', join(folder, 'no'), '--recipe', recipe);
      expect(without.code).to.equal(2);
      expect(without.err).to.match(/supplied grey \(smears\.png\).*finish\.greyMap=null/);
    }));

  it('lays a detail normal over the normals, and writes them in 16 bits beside a small, soft height', () =>
    inFolder(async (folder) => {
      const photo = join(folder, 'photo.png');
      const detail = join(folder, 'weave.png');
      await writeFile(photo, await picture(300, 300).png().toBuffer());
      const tilt = Buffer.from(Array.from({ length: 3 * 32 * 32 }, (_v, i) => [200, 128, 230][i % 3]));
      await writeFile(
        detail,
        await sharp(tilt, { raw: { width: 32, height: 32, channels: 3 } })
          .png()
          .toBuffer(),
      );
      const out = join(folder, 'out');
      const bake = ['bake', photo, '--out', out, '--size', '256', '--quiet', '--set', 'relief.depthMm=0'];
      const sizes = ['crate.normalBits=16', 'crate.heightSize=128', 'crate.heightSoftMm=10'];
      const { code, err } = await zesty(
        ...bake,
        '--role',
        `detail=${detail}`,
        ...sizes.flatMap((set) => ['--set', set]),
      );
      expect(err).to.equal('');
      expect(code).to.equal(0);
      const normal = sharp(join(out, 'photo_normal.png'));
      expect((await normal.metadata()).depth).to.equal('ushort');
      const { data } = await normal
        .toColourspace('rgb16')
        .raw({ depth: 'ushort' })
        .toBuffer({ resolveWithObject: true });
      const codes = new Uint16Array(data.buffer, data.byteOffset, data.length / 2);
      // A flat surface takes the tilt of the detail: 200 of 255 to the right, brought to unit length.
      const [x, z] = [(2 * 200) / 255 - 1, (2 * 230) / 255 - 1];
      const y = (2 * 128) / 255 - 1;
      expect(codes[0] / 65535).to.be.closeTo((x / Math.hypot(x, y, z) + 1) / 2, 2e-3);
      const height = await sharp(join(out, 'photo_height.png')).metadata();
      expect([height.width, height.height]).to.deep.equal([128, 128]);
    }));
});
