import { createHash } from 'node:crypto';
import { readdir, readFile, writeFile } from 'node:fs/promises';
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

  it('every profile carries what coats put into opacity and emission, documents too', () =>
    inFolder(async (folder) => {
      const photo = join(folder, 'wall.png');
      await picture(300, 300).png().toFile(photo);
      const stack = join(folder, 'stack.json');
      await writeFile(stack, JSON.stringify(STACK));
      const made = async (profile: string) => {
        const out = join(folder, profile);
        const given = ['--size', '256', '--profile', profile, '--set', `coats.stack=@${stack}`];
        const { code, err } = await zesty('bake', photo, '--out', out, '--quiet', ...given);
        expect(code, err).to.equal(0);
        return { out, names: await readdir(out) };
      };
      const pixel = async (file: string) => [...(await sharp(file).raw().toBuffer()).subarray(0, 4)];
      for (const profile of ['separate', 'packed', 'specular-gloss', 'normal-gloss']) {
        const { out } = await made(profile);
        expect((await pixel(join(out, 'wall_opacity.png')))[0], profile).to.be.closeTo(128, 1);
        expect((await pixel(join(out, 'wall_emission.png'))).slice(0, 3), profile).to.deep.equal([255, 0, 0]);
      }
      const two = await made('two-maps');
      const [colour] = two.names.filter((name) => /colour/.test(name));
      expect((await pixel(join(two.out, colour)))[3]).to.be.closeTo(128, 1);
      const glb = await made('gltf');
      const [binary] = glb.names.filter((name) => name.endsWith('.glb'));
      const bytes = await readFile(join(glb.out, binary));
      const { materials } = JSON.parse(bytes.subarray(20, 20 + bytes.readUInt32LE(12)).toString());
      expect(materials[0]).to.have.property('emissiveTexture');
      expect(materials[0].alphaMode).to.not.equal('OPAQUE');
      const mtlx = await made('materialx');
      const [document] = mtlx.names.filter((name) => name.endsWith('.mtlx'));
      const text = await readFile(join(mtlx.out, document), 'utf8');
      expect(text).to.match(/name="opacity"[^>]*(nodename|output|nodegraph)=/);
      expect(text).to.match(/name="emission_color"[^>]*(nodename|output|nodegraph)=/);
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

  it('takes the pictures that coats refer to, and says which is missing', () =>
    inFolder(async (folder) => {
      const photo = join(folder, 'wall.png');
      await picture(300, 300).png().toFile(photo);
      const print = join(folder, 'print.png');
      await sharp({ create: { width: 64, height: 64, channels: 3, background: '#ff8000' } })
        .png()
        .toFile(print);
      const sha256 = createHash('sha256')
        .update(await readFile(print))
        .digest('hex');
      const ref = { sha256, width: 64, height: 64, name: 'print.png' };
      const stack = join(folder, 'stack.json');
      const outputs = [{ by: 'picture', channel: 'colour', picture: ref }];
      await writeFile(stack, JSON.stringify([{ id: 'print', name: 'Print', outputs }]));
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
      const without = await bake();
      expect(without.code).to.equal(2);
      expect(without.err).to.contain('print.png').and.to.contain('--picture');
      const whole = await bake('--picture', print);
      expect(whole.code, whole.err).to.equal(0);
      const pixels = await sharp(join(folder, 'wall_albedo.png')).raw().toBuffer();
      expect([...pixels.subarray(600, 603)]).to.deep.equal([255, 128, 0]);
    }));
});

describe('zesty stack check', () => {
  const checked = (value: unknown) =>
    inFolder(async (folder) => {
      const file = join(folder, 'stack.json');
      await writeFile(file, JSON.stringify(value));
      return zesty('stack', 'check', file);
    });

  it('says what a stack holds and needs', async () => {
    const { code, out } = await checked({
      stack: [
        {
          id: 'a',
          name: 'Moss',
          group: 'gone',
          parts: [{ by: 'zone', zone: 'joints' }],
          outputs: STACK[0].outputs,
        },
        { id: 'b', name: 'Nothing', outputs: [] },
        {
          id: 'c',
          name: 'Wear',
          parts: [{ by: 'range', map: 'supplied', supplied: 'cavity' }],
          outputs: STACK[0].outputs,
        },
      ],
    });
    expect(code).to.equal(0);
    expect(out)
      .to.contain('3 coats, 2 with an effect')
      .and.to.contain('“Moss” is in a group that is not there');
    expect(out).to.contain('the zone “joints”, a supplied cavity map');
  });

  it('says what is wrong with one: no stops, zero cells, two coats of one id', async () => {
    const coat = (changes: object) => ({ id: 'a', name: 'A', ...changes });
    for (const [stack, words] of [
      [[coat({ outputs: [{ by: 'ramp', stops: [] }] })], 'at least one stop'],
      [[coat({ parts: [{ by: 'pattern', across: 0 }] })], 'across'],
      [[coat({}), coat({})], 'id'],
      [[coat({ parts: [{ by: 'moss' }] })], 'moss'],
    ] as const) {
      const { code, err } = await checked(stack);
      expect(code, words).to.equal(2);
      expect(err).to.contain(words);
    }
  });
});
