import { mkdir, readdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { expect } from 'chai';
import sharp from 'sharp';
import { giantPng, noisyJpeg, picture } from '../../codecs/test/pictures.ts';
import { inFolder, zesty } from './run.ts';

const oneLine = (text: string) => expect(text.trim().split('\n')).to.have.length(1);

describe('zesty bake, of what cannot be', () => {
  it('answers wrong calls and bad pictures with 2 and one plain line, and writes nothing', () =>
    inFolder(async (folder) => {
      const out = join(folder, 'out');
      const photo = join(folder, 'wall.png');
      const file = (name: string) => join(folder, name);
      await picture(300, 300).png().toFile(photo);
      await writeFile(file('text.jpg'), 'just a text');
      const whole = await noisyJpeg();
      await writeFile(file('broken.jpg'), whole.subarray(0, whole.length / 2));
      await sharp({ create: { width: 1, height: 1, channels: 3, background: '#888' } })
        .png()
        .toFile(file('dot.png'));
      await writeFile(file('giant.png'), giantPng());
      await writeFile(file('odd.json'), JSON.stringify({ version: 1, stations: { even: { ammount: 1 } } }));
      await writeFile(file('text.json'), 'no json');
      await mkdir(file('nothing'));
      await mkdir(file('twin'));
      await picture(300, 300).png().toFile(file('twin/wall.png'));
      const calls: [string[], RegExp][] = [
        [['bake', file('none.png'), '--out', out], /no such file/],
        [['bake', file('nothing'), '--out', out], /no pictures in nothing/],
        [['bake', photo, file('twin/wall.png'), '--out', out], /would both be called “wall”/],
        [['bake', photo, file('dot.png'), '--out', out, '--name', 'a'], /for one picture/],
        [['bake', photo, '--out', out, '--set', 'crate.names={map}/x'], /is not allowed in file names/],
        [['bake', file('text.jpg'), '--out', out], /not a picture/],
        [['bake', file('broken.jpg'), '--out', out], /incomplete or damaged/],
        [['bake', file('dot.png'), '--out', out], /1 × 1/],
        [['bake', file('giant.png'), '--out', out], /30000 × 30000/],
        [['bake', photo, '--out', out, '--size', '1000'], /256, 512/],
        [['bake', photo, '--out', out, '--name', '../wall'], /cannot be a file name/],
        [['bake', photo, '--out', out, '--set', 'even.amount'], /even.amount/],
        [['bake', photo, '--out', out, '--set', 'even.ammount=1'], /no setting “ammount”/],
        [['bake', photo, '--out', out, '--profile', 'mine'], /separate, packed/],
        [['bake', photo, '--out', out, '--seed', 'x'], /whole number/],
        [['bake', photo, '--out', out, '--recipe', file('odd.json')], /stations.even.ammount/],
        [['bake', photo, '--out', out, '--recipe', file('text.json')], /not JSON/],
        [['bake', photo], /--out/],
        [['grill', photo], /grill/],
      ];
      for (const [args, words] of calls) {
        const { code, err, out: said } = await zesty(...args);
        expect(code, args.join(' ')).to.equal(2);
        expect(err, args.join(' ')).to.match(words);
        oneLine(err);
        expect(said).to.equal('');
      }
      expect(await readdir(folder)).not.to.include('out');
    })).timeout(120000);

  it('ends with 1 where the folder cannot be written', () =>
    inFolder(async (folder) => {
      const photo = join(folder, 'wall.png');
      await picture(300, 300).png().toFile(photo);
      const { code, err } = await zesty(
        'bake',
        photo,
        '--out',
        join(photo, 'under'),
        '--size',
        '256',
        '--quiet',
      );
      expect(code).to.equal(1);
      expect(err).to.match(/is not a folder; a file is in its place/);
      oneLine(err);
    }));
});
