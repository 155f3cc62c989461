import {
  contentsOf,
  Engine,
  type Frame,
  filesWithout,
  KERNELS,
  type MapName,
  PROFILES,
  type Profile,
  type ProfileFile,
  parseRecipe,
  profileProblems,
  Raster,
  smallerMap,
  srgbToLinear,
  statistics,
} from '@zesty-tile/core';
import { expect } from 'chai';
import { TORUS } from '../../../src/raster/edges.ts';
import { GRADIENT_KERNELS } from '../../../src/raster/gradient.ts';
import { packer } from '../../../src/stations/crate/pack.ts';
import { normalMap } from '../../../src/stations/relief/normal-map.ts';
import { hostOf, photo, pixelsOf, recipeWith } from '../../engine/host.ts';
import { noisePlane, planeOf } from '../../fields.ts';
import { frameOf } from '../run.ts';

const file = (over: Partial<ProfileFile> = {}): ProfileFile => ({ ...PROFILES.packed.files[2], ...over });
const profile = (...files: object[]) => ({ name: 'Ours', files, document: 'none' }) as Profile;

describe('a profile', () => {
  for (const [words, value, message] of [
    [
      'two files of one name',
      profile(file(), file({ ending: 'Occlusion-Roughness-Metallic' })),
      /Two files are called/,
    ],
    [
      'a channel that names no map',
      profile({ ...file(), channels: [{ map: 'shininess', plane: 0, turned: false }] }),
      /channels\.0.* a plane of a map that there is/,
    ],
    ['16 bits of JPEG', profile(file({ format: 'jpeg', bits: 16 })), /jpeg has 8 bits, not 16/],
    [
      'a colour TIFF of 16 bits',
      profile({ ...PROFILES.packed.files[0], format: 'tiff', bits: 16 }),
      /cannot carry an sRGB profile/,
    ],
    [
      'an alpha in JPEG',
      profile(file({ format: 'jpeg', channels: Array(4).fill({ value: 1 }) })),
      /no fourth channel/,
    ],
    ['two channels', profile(file({ channels: Array(2).fill({ value: 1 }) })), /one, three or four channels/],
    ['data in a colour', profile(file({ kind: 'colour' })), /red: occlusion is data/],
    [
      'a plane that a map has not',
      profile(file({ channels: [{ map: 'height', plane: 2, turned: false }] })),
      /height has one plane/,
    ],
    ['an ending with a slash', profile(file({ ending: '../normal' })), /letters, digits/],
    ['no file', profile(), /at least one/],
    ['a word in place of it', 'packed', /Expected/],
  ] as const) {
    it(`with ${words} is refused in words`, () => {
      const problems = profileProblems(value);
      expect(problems.length).to.be.above(0);
      expect(problems.join(' ')).to.match(message);
    });
  }

  it('stands whole in a recipe, and a wrong one is refused there', () => {
    const recipe = recipeWith({ crate: { profile: 'own', ownProfile: profile(file()) } });
    expect(parseRecipe(JSON.parse(JSON.stringify(recipe)))).to.deep.equal(recipe);
    const wrong = structuredClone(recipe);
    wrong.stations.crate.ownProfile!.files.push(file());
    expect(() => parseRecipe(wrong)).to.throw(/Two files are called/);
  });

  it('without opacity and emission loses their files, and an alpha that there is none for', () => {
    const endings = (name: keyof typeof PROFILES) =>
      filesWithout(PROFILES[name], ['opacity', 'emission']).map(({ ending }) => ending);
    expect(endings('separate')).not.to.include.members(['opacity']);
    expect(endings('separate')).to.include.members(['albedo', 'height']);
    expect(filesWithout(PROFILES['two-maps'], ['opacity'])[0].channels).to.have.length(3);
    expect(filesWithout(PROFILES['two-maps'], [])[0].channels).to.have.length(4);
  });

  it('says briefly what stands in each channel', () => {
    const turned: ProfileFile = file({
      channels: [{ map: 'roughness', plane: 0, turned: true }, { value: 0.5 }],
    });
    expect(contentsOf(turned)).to.deep.equal(['1 − roughness', '0.5']);
    expect(contentsOf(PROFILES.separate.files[1])).to.deep.equal(['normal.x', 'normal.y', 'normal.z']);
  });
});

const size = 64;
const one = (plane: Float32Array) => new Raster(size, size, [plane]);
const frame: Frame = frameOf(size, 1);
const height = planeOf(
  size,
  size,
  (x, y) => 0.5 + 0.4 * Math.sin((8 * Math.PI * x) / size) * Math.cos((6 * Math.PI * y) / size),
);
const rough = 0.4;
const maps: Partial<Record<MapName, Raster>> = {
  albedo: new Raster(
    size,
    size,
    [1, 2, 3].map((seed) => noisePlane(size * size, seed).map((v) => 0.4 + 0.1 * v)),
  ),
  occlusion: one(noisePlane(size * size, 5).map((v) => Math.min(1, Math.abs(0.6 + 0.1 * v)))),
  roughness: one(new Float32Array(size * size).fill(rough)),
  height: one(height),
  normal: normalMap(height, { width: size, height: size }, 0.03, 1, GRADIENT_KERNELS[0], 'up', TORUS),
  opacity: one(planeOf(size, size, (x, y) => Number(Math.hypot((x % 16) - 7.3, (y % 16) - 7.8) < 3.4))),
};
const rasterOf = (map: MapName) => maps[map]!;
const packed = (over: Partial<ProfileFile>) =>
  packer(file(over), rasterOf, frame, { width: size, height: size })(0, size);

describe('what stands in a channel', () => {
  it('is the plane that was asked for, turned over where that was asked, or one value', () => {
    const [a, b, c] = packed({
      channels: [
        { map: 'roughness', plane: 0, turned: false },
        { map: 'roughness', plane: 0, turned: true },
        { value: 0.25 },
      ],
    });
    expect(a[9]).to.be.closeTo(rough, 1e-6);
    expect(b[9]).to.be.closeTo(1 - rough, 1e-6);
    expect(c[9]).to.equal(0.25);
  });

  it('is sRGB encoded in a colour file and linear in a data file', () => {
    const channels = [{ map: 'albedo', plane: 1, turned: false } as const];
    const [linear] = packed({ kind: 'data', channels });
    const [coded] = packed({ kind: 'colour', channels });
    expect(linear[7]).to.be.closeTo(maps.albedo!.planes[1][7], 1e-6);
    expect(srgbToLinear(coded[7])).to.be.closeTo(linear[7], 1e-5);
  });

  it('holds so much of the occlusion as was chosen, in linear light', () => {
    const channels = [{ map: 'albedo', plane: 0, turned: false } as const];
    for (const occlusion of [0.5, 1]) {
      const [dark] = packed({ kind: 'data', channels, occlusion });
      const open = maps.occlusion!.planes[0][11];
      expect(dark[11]).to.be.closeTo(maps.albedo!.planes[0][11] * (1 - occlusion * (1 - open)), 1e-6);
    }
  });

  it('turns the green of the normal to where it was asked, and nothing else', () => {
    const channels = PROFILES.separate.files[1].channels;
    const [x, y, z] = packed({ channels });
    const [dx, dy, dz] = packed({ channels, green: 'down' });
    expect(dx).to.deep.equal(x);
    expect(dz).to.deep.equal(z);
    dy.forEach((value, i) => {
      expect(value).to.be.closeTo(1 - y[i], 1e-6);
    });
    expect(packed({ channels, green: 'up' })[1]).to.deep.equal(y);
  });
});

describe('a map at a smaller size', () => {
  const small = (map: MapName, edge = 16) => smallerMap(map, rasterOf, edge, edge);
  it('keeps the mean of height and of colour in linear light', () => {
    for (const map of ['height', 'albedo', 'occlusion'] as const)
      expect(statistics(small(map).planes[0]).mean).to.be.closeTo(
        statistics(maps[map]!.planes[0]).mean,
        1e-5,
      );
  });

  it('has unit normals', () => {
    const [x, y, z] = small('normal').planes;
    for (let i = 0; i < x.length; i++) expect(Math.hypot(x[i], y[i], z[i])).to.be.closeTo(1, 1e-6);
  });

  it('is rougher by the variance of slope that its normals lost; a flat one is as rough as before', () => {
    const [x, y, z] = maps.normal!.planes;
    const [p, q] = [x.map((value, i) => -value / z[i]), y.map((value, i) => -value / z[i])];
    const variance = (statistics(p).deviation ** 2 + statistics(q).deviation ** 2) / 2;
    const expected = (rough ** 4 + 2 * variance) ** 0.25;
    expect(smallerMap('roughness', rasterOf, 1, 1).planes[0][0]).to.be.closeTo(expected, 1e-3);
    const flat = new Raster(
      size,
      size,
      [0, 0, 1].map((value) => new Float32Array(size * size).fill(value)),
    );
    const level = (map: MapName) => (map === 'normal' ? flat : rasterOf(map));
    expect(smallerMap('roughness', level, 8, 8).planes[0][3]).to.be.closeTo(rough, 1e-6);
    expect(
      smallerMap('gloss', (map) => (map === 'gloss' ? maps.roughness! : rasterOf(map)), 1, 1).planes[0][0],
    ).to.be.closeTo(1 - expected, 1e-3);
  });

  it('covers as much where it cuts out', () => {
    const share = (plane: Float32Array) => plane.filter((value) => value >= 0.5).length / plane.length;
    const before = share(maps.opacity!.planes[0]);
    const plain = share(smallerMap('height', () => maps.opacity!, 16, 16).planes[0]);
    const after = share(small('opacity').planes[0]);
    expect(Math.abs(after - before)).to.be.below(Math.abs(plain - before) + 1e-9);
    expect(after).to.be.closeTo(before, 0.05);
  });
});

describe('an own profile in a crate', () => {
  it('writes what it says: a size of its own, channels turned over, one value', async () => {
    const own = profile(
      file({
        ending: 'mask',
        size: 64,
        channels: [
          { map: 'metallic', plane: 0, turned: false },
          { value: 1 },
          { map: 'roughness', plane: 0, turned: true },
        ],
      }),
    );
    const engine = new Engine(hostOf(pixelsOf(photo(400, 300))), 2 ** 28);
    const source = { sha256: 'photo', width: 400, height: 300 };
    const recipe = recipeWith({ square: { size: 256 as never }, crate: { profile: 'own', ownProfile: own } });
    const { outputs } = await engine.evaluate({ recipe, source, size: 256 });
    const [made] = outputs.crate!.files;
    expect(outputs.crate!.files).to.have.length(1);
    expect([made.width, made.height, made.channels]).to.deep.equal([64, 64, 3]);
    expect(made.contents).to.deep.equal(['metallic', '1', '1 − roughness']);
    const codes = made.samples();
    expect([codes[0], codes[1]]).to.deep.equal([0, 255]);
    expect(KERNELS.quantise([new Float32Array([0.5])], 8)[0]).to.equal(128);
  });
});
