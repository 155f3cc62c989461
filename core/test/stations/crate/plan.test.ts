import {
  type CrateSettings,
  filledText,
  newRecipe,
  PROFILES,
  parseRecipe,
  patternProblems,
  planCrate,
  profileProblems,
  recipeProblems,
  safeName,
  type TextFields,
  templateProblems,
} from '@zesty-tile/core';
import { expect } from 'chai';
import { recipeWith } from '../../engine/host.ts';

const usual = newRecipe().stations.crate;
const with_ = (over: Partial<CrateSettings>): CrateSettings => ({ ...usual, ...over });
const square = { size: 2048, shape: '1:1' } as const;
const naming = { tile: 'Sea wall', crate: 7 };
const MISSING = ['opacity', 'emission', 'dielectric'] as const;
const plan = (over: Partial<CrateSettings>, frame: { size: number; shape: '1:1' | '2:1' } = square) =>
  planCrate(with_(over), MISSING, frame, naming);

describe('the plan of a crate', () => {
  it('names files as they always were, the manifest last', () => {
    const { names } = plan({});
    expect(names).to.deep.equal([
      ...['albedo', 'normal', 'occlusion', 'roughness', 'metallic', 'specular', 'cavity', 'height'].map(
        (map) => `Sea wall_${map}.png`,
      ),
      'Sea wall.tile.json',
    ]);
  });

  it('fills in every field of a pattern, and keeps crates with a number apart', () => {
    const { names } = plan({ names: '{tile}-{crate}.{map}_{size}' });
    expect(names[0]).to.equal('Sea wall-7.albedo_2048.png');
    expect(names.at(-1)).to.equal('Sea wall_7.tile.json');
  });

  it('a ladder halves each file from its own size, two to one too, and says the size at the end', () => {
    const { pictures } = plan({ ladder: 3, heightSize: 512 }, { size: 1024, shape: '2:1' });
    const of = (map: string) =>
      pictures
        .filter(({ file }) => file.ending === map)
        .map(({ width, height, name }) => `${width}×${height} ${name}`);
    expect(of('albedo')).to.deep.equal([
      '1024×512 Sea wall_albedo_1024.png',
      '512×256 Sea wall_albedo_512.png',
      '256×128 Sea wall_albedo_256.png',
    ]);
    expect(of('height')[0]).to.equal('512×256 Sea wall_height_512.png');
    expect(of('height')[2]).to.equal('128×64 Sea wall_height_128.png');
    expect(plan({ ladder: 2, names: '{size}_{map}' }).names).to.include('1024_albedo.png');
  });

  it('puts pictures into a glTF for each size, and beside a MaterialX document', () => {
    expect(plan({ profile: 'gltf', ladder: 2 }).names).to.deep.equal([
      'Sea wall_2048.glb',
      'Sea wall_1024.glb',
      'Sea wall.tile.json',
    ]);
    const { names } = plan({ profile: 'materialx' });
    expect(names).to.include.members(['Sea wall_albedo.png', 'Sea wall.mtlx']);
  });

  it('says where two files would have one name', () => {
    const [one] = PROFILES.packed.files;
    const own = { name: 'Ours', document: 'none' as const, files: [one, { ...one, ending: 'x' }] };
    expect(() =>
      planCrate(
        with_({
          profile: 'own',
          ownProfile: own,
          names: '{tile}.{map}',
          text: { ending: 'X.png', text: 'a' },
        }),
        MISSING,
        square,
        naming,
      ),
    ).to.throw(/Two files of the crate would be called “Sea wall.X.png”/);
  });

  it('keeps the suffix of the manifest, bounds names, and refuses texts without bounds', () => {
    const plan = (values: object, tile = 'Sea wall') =>
      planCrate(with_(values), MISSING, square, { ...naming, tile });
    for (const ending of ['tile.json', 'TILE.json', 'a.tile.json'])
      expect(() => plan({ text: { ending, text: 'a' } }), ending).to.throw(/kept for the manifest/);
    expect(plan({ text: { ending: 'mytile.json', text: 'a' } }).text).to.equal('Sea wall.mytile.json');
    expect(() => plan({ names: `{tile}_{map}_${'名'.repeat(60)}` }, '名'.repeat(40))).to.throw(
      /more than 255 bytes/,
    );
    const twice = '{{#files}}{{#files}}{{name}}{{/files}}{{/files}}';
    expect(() => plan({ text: { ending: 'txt', text: twice } })).to.throw(/inside another/);
    const deep = `${'{{#size}}'.repeat(9)}${'{{/size}}'.repeat(9)}`;
    expect(() => plan({ text: { ending: 'txt', text: deep } })).to.throw(/more than 8 deep/);
    const one = '{{#files}}{{#colour}}{{name}}{{/colour}}{{/files}}{{^files}}none{{/files}}';
    expect(plan({ text: { ending: 'txt', text: one } }).text).to.equal('Sea wall.txt');
  });
});

describe('patterns of file names', () => {
  it('that cannot be used are refused, each in words', () => {
    for (const [pattern, words] of [
      ['{tile}', /Without \{map\}/],
      ['{map}/{tile}', /“\/” is not allowed/],
      ['{map}{tyle}', /\{tyle\} is not a known field.*\{tile\}, \{map\}, \{size\}, \{crate\}/],
      ['{map', /not closed/],
      ['.{map}', /may not begin/],
      [`{map}${'x'.repeat(90)}`, /more than 80/],
    ] as const) {
      expect(patternProblems(pattern).join(' '), pattern).to.match(words);
      expect(recipeProblems(recipeWith({ crate: { names: pattern } })).join(' '), pattern).to.match(words);
    }
    expect(patternProblems('müde_{map}_{size}')).to.deep.equal([]);
  });

  it('take names of any script, and what a system keeps for itself is made another', () => {
    expect(safeName('石の壁/北')).to.equal('石の壁-北');
    expect(new TextEncoder().encode(safeName('壁'.repeat(200))).length).to.be.at.most(120);
    expect(safeName('CON')).to.equal('CON_');
    expect(safeName('con.fire')).to.equal('con_.fire');
    expect(safeName('Concrete')).to.equal('Concrete');
  });
});

const fields: TextFields = {
  ...naming,
  profile: 'Separate maps',
  size: 2048,
  width: 2048,
  height: 1024,
  edgeMetres: 2,
  depthMm: 8,
  depthShare: 0.004,
  normalY: 1,
  roughness: 0.7,
  metallic: 0,
  f0: 0.04,
  files: [
    {
      name: 'a&b_normal.png',
      map: 'normal',
      size: 2048,
      width: 2048,
      height: 1024,
      format: 'png',
      bits: 8,
      colour: false,
      data: true,
      red: 'normal.x',
      green: 'normal.y',
      blue: 'normal.z',
      alpha: '',
    },
  ],
  file: { normal: 'a&b_normal.png' },
};

describe('a text of one’s own', () => {
  it('has its fields filled in, nothing escaped, files one by one', () => {
    const text =
      '{{tile}} {{depthShare}} {{file.normal}}\n{{#files}}{{map}}:{{name}}{{#data}} data{{/data}};{{/files}}';
    expect(templateProblems(text)).to.deep.equal([]);
    expect(filledText(text, fields)).to.equal('Sea wall 0.004 a&b_normal.png\nnormal:a&b_normal.png data;');
  });

  it('says which field there is not, and where a section is not closed', () => {
    expect(templateProblems('{{tyle}}')[0]).to.match(
      /\{\{tyle\}\} is not a known field; use one of tile, crate/,
    );
    expect(templateProblems('{{#files}}{{tint}}{{/files}}')[0]).to.match(/\{\{tint\}\} is not a known field/);
    expect(templateProblems('{{name}}')[0]).to.match(/is not a known field/);
    expect(templateProblems('{{#files}}')[0]).to.match(/Unclosed section "files"/);
    expect(templateProblems('{{> other}}')[0]).to.match(/another file/);
    const crate = { text: { ending: 'txt', text: '{{tyle}}' } };
    expect(recipeProblems(recipeWith({ crate })).join(' ')).to.match(/is not a known field/);
    expect(recipeProblems(recipeWith({ crate: { text: { ending: '../x', text: '' } } })).join(' ')).to.match(
      /starts with a letter or digit/,
    );
  });

  it('stands in the recipe as it was written', () => {
    const crate = { text: { ending: 'material.txt', text: 'a {{size}}' } };
    expect(parseRecipe(recipeWith({ crate })).stations.crate.text).to.deep.equal(crate.text);
  });
});

describe('profiles of documents', () => {
  it('a glTF says what it cannot hold', () => {
    const { files } = PROFILES.gltf;
    const gltf = (changed: object[]) => ({ name: 'Ours', document: 'gltf', files: changed });
    expect(profileProblems(gltf(files))).to.deep.equal([]);
    expect(profileProblems(gltf(files.slice(0, 2))).join(' ')).to.match(
      /needs a file with roughness in green/,
    );
    const of = (k: number, over: object) => files.map((file, i) => (i === k ? { ...file, ...over } : file));
    expect(profileProblems(gltf(of(0, { format: 'tga' }))).join(' ')).to.match(/png or jpeg, not tga/);
    expect(profileProblems(gltf(of(1, { green: 'recipe' }))).join(' ')).to.match(/with green up/);
    expect(profileProblems(gltf(of(1, { bits: 16 }))).join(' ')).to.match(/8 bits/);
    expect(
      profileProblems(gltf(files).document ? { ...gltf(files), document: 'usd' } : null).join(' '),
    ).to.match(/one of none, gltf, materialx/);
  });
});
