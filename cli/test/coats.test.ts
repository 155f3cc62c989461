import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { expect } from 'chai';
import sharp from 'sharp';
import { picture } from '../../codecs/test/pictures.ts';
import { inFolder, zesty } from './run.ts';

const STACK = [
  {
    id: 'paint',
    name: 'Paint',
    outputs: [
      { by: 'constant', channel: 'colour', colour: '#406080' },
      { by: 'constant', channel: 'opacity', amount: 0.5 },
      { by: 'constant', channel: 'emission', colour: '#ff0000' },
    ],
  },
];

describe('zesty bake with coats', () => {
  it('takes a stack from a file, changes one value of it, and writes every map it makes', () =>
    inFolder(async (folder) => {
      const photo = join(folder, 'wall.png');
      await picture(300, 300).png().toFile(photo);
      const stack = join(folder, 'stack.json');
      await writeFile(stack, JSON.stringify(STACK));
      const bake = (...more: string[]) =>
        zesty(
          'bake',
          photo,
          '--out',
          folder,
          '--size',
          '256',
          '--quiet',
          '--set',
          `coats.stack=@${stack}`,
          ...more,
        );
      const whole = await bake();
      expect(whole.code, whole.err).to.equal(0);
      const first = async (map: string) => [
        ...(
          await sharp(join(folder, `wall_${map}.png`))
            .raw()
            .toBuffer()
        ).subarray(600, 603),
      ];
      expect(await first('albedo')).to.deep.equal([64, 96, 128]);
      expect((await first('opacity'))[0]).to.be.closeTo(128, 1);
      expect(await first('emission')).to.deep.equal([255, 0, 0]);
      const manifest = JSON.parse(await readFile(join(folder, 'wall.tile.json'), 'utf8'));
      expect(manifest.recipe.stations.coats.stack[0].name).to.equal('Paint');
      const faint = await bake('--force', '--set', 'coats.stack.0.strength=0');
      expect(faint.code, faint.err).to.equal(0);
      expect(await first('albedo')).to.not.deep.equal([64, 96, 128]);
    }));

  it('says what is wrong with a stack: no file, no list, a name that is there twice, no stops', () =>
    inFolder(async (folder) => {
      const photo = join(folder, 'wall.png');
      await picture(300, 300).png().toFile(photo);
      const stack = join(folder, 'stack.json');
      const refused = async (value: unknown) => {
        await writeFile(stack, JSON.stringify(value));
        const { code, err } = await zesty('bake', photo, '--out', folder, '--set', `coats.stack=@${stack}`);
        expect(code).to.equal(2);
        return err;
      };
      const ramp = { by: 'ramp', channel: 'colour', stops: [] };
      expect(await refused([STACK[0], STACK[0]])).to.match(/must not have the same id twice/);
      expect(await refused({})).to.match(/coats\.stack takes data/);
      expect(await refused([{ ...STACK[0], outputs: [ramp] }])).to.match(/coats\.stack/);
      const gone = await zesty('bake', photo, '--out', folder, '--set', 'coats.stack=@not-there.json');
      expect(gone.err).to.match(/there is no such file/);
    }));
});
