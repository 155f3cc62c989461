import { mkdir, readdir, readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { decodePicture, sha256Of } from '@zesty-tile/codecs';
import { newRecipe, pictureSeams, Raster, srgbToLinear } from '@zesty-tile/core';
import { expect } from 'chai';
import sharp from 'sharp';
import { exrFile } from '../../codecs/test/exr-file.ts';
import { waveNormals } from '../../codecs/test/normals.ts';
import { giantPng, noisyJpeg, picture } from '../../codecs/test/pictures.ts';
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
      expect(without.err).to.match(/made with a given height \(depth\.exr\).*--role height=/);
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
      expect(verdicts.source.sentence).to.match(/holds 40 px/);
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
        [['bake', photo, '--out', out, '--set', 'crate.names={map}/x'], /cannot stand in a file name/],
        [['bake', file('text.jpg'), '--out', out], /not a picture/],
        [['bake', file('broken.jpg'), '--out', out], /breaks off/],
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
      expect(err).to.match(/is no folder; a file is in its place/);
      oneLine(err);
    }));
});

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
      expect([sound.code, sound.out.trim()]).to.deep.equal([0, 'The recipe is sound.']);
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
