import {
  GRADIENT_KERNELS,
  gaussian,
  greenOf,
  normalMap,
  Raster,
  roleOf,
  roleOfContents,
  setsOf,
  TORUS,
} from '@zesty-tile/core';
import { expect } from 'chai';
import { noisePlane, planeOf } from '../../fields.ts';

const N = 256;

/** Codes of the normals of a height, with so many levels a channel. */
function codesOf(height: Float32Array, normalY: 'up' | 'down', levels = 255): Raster {
  const normals = normalMap(height, { width: N, height: N }, 0.05, 1, GRADIENT_KERNELS[0], normalY, TORUS);
  return normals.mapPlanes((plane) => plane.map((v) => Math.round(((v + 1) / 2) * levels) / levels));
}

const bumps = gaussian(noisePlane(N * N, 5), N, N, 5, TORUS).map((v) => 8 * (v - 0.5));

describe('the green of a normal map', () => {
  for (const way of ['up', 'down'] as const) {
    it(`is told right where it points ${way}, from eight bits`, () => {
      const found = greenOf(codesOf(bumps, way));
      expect(found.points).to.equal(way);
      expect(found[way]).to.be.below(0.05);
      expect(found[way === 'up' ? 'down' : 'up']).to.be.above(0.2);
    });

    it(`is told right where the map does not wrap and has noise, ${way}`, () => {
      const large = codesOf(bumps, way);
      const noise = noisePlane(3 * N * N, 8);
      const piece = new Raster(
        150,
        200,
        large
          .cut(20, 30, 150, 200)
          .planes.map((plane, c) => plane.map((v, i) => v + 0.02 * (noise[i + c * N] - 0.5))),
      );
      expect(greenOf(piece).points).to.equal(way);
    });
  }

  it('cannot be told from a height that is a sum of one across and one down', () => {
    const separable = planeOf(
      N,
      N,
      (x, y) => 0.5 + 0.3 * Math.sin((2 * Math.PI * 5 * x) / N) + 0.3 * Math.cos((2 * Math.PI * 4 * y) / N),
    );
    const found = greenOf(codesOf(separable, 'up'));
    expect(found.isNormal).to.equal(true);
    expect(found.points).to.equal(null);
  });

  it('cannot be told from a flat map, and not from noise', () => {
    const flat = [0.5, 0.5, 1].map((v) => planeOf(N, N, () => v));
    expect(greenOf(new Raster(N, N, flat)).points).to.equal(null);
    const noise = [1, 2].map((seed) => noisePlane(N * N, seed).map((v) => 0.4 + 0.2 * v));
    expect(greenOf(new Raster(N, N, [...noise, flat[2]])).points).to.equal(null);
  });

  it('is not asked of a picture that is no normal map', () => {
    const grey = noisePlane(N * N, 3);
    expect(greenOf(new Raster(N, N, [grey, grey, grey])).isNormal).to.equal(false);
    const middle = grey.map(() => 0.5);
    expect(greenOf(new Raster(N, N, [middle, middle, middle])).isNormal).to.equal(false);
  });
});

describe('roles in file names', () => {
  const sure: [string, string, string][] = [
    ['courtyard_albedo.png', 'colour', 'courtyard'],
    ['Courtyard_BaseColor.tif', 'colour', 'courtyard'],
    ['courtyard-base-color-2k.png', 'colour', 'courtyard'],
    ['courtyard_diffuse.jpg', 'colour', 'courtyard'],
    ['courtyard_nrm.png', 'normal', 'courtyard'],
    ['CourtyardNormal.png', 'normal', 'courtyard'],
    ['courtyard_normal_gl_4k.png', 'normal', 'courtyard'],
    ['courtyard_disp.exr', 'height', 'courtyard'],
    ['courtyard Ambient Occlusion.png', 'occlusion', 'courtyard'],
    ['courtyard_ao.png', 'occlusion', 'courtyard'],
    ['old wall_roughness.png', 'roughness', 'old wall'],
    ['old wall_glossiness.png', 'gloss', 'old wall'],
    ['leaf_opacity.png', 'opacity', 'leaf'],
    ['wall_2048_cavity.png', 'cavity', 'wall'],
    ['color.png', 'colour', ''],
    ['Normal.PNG', 'normal', ''],
    ['ambient occlusion.png', 'occlusion', ''],
    ['Albedo_gate.png', 'colour', 'gate'],
    ['2K-Gate-NormalGL.png', 'normal', 'gate'],
    ['GATE_ROUGHNESS_2048x2048.png', 'roughness', 'gate'],
    ['gate~height+4k.tif', 'height', 'gate'],
    ['gatealbedo.png', 'colour', 'gate'],
    ['gate_normal_old.png', 'normal', 'gate old'],
    ['gate_albedo_v2.png', 'colour', 'gate'],
    ['gate_normal_02.png', 'normal', 'gate 02'],
  ];
  for (const [name, role, stem] of sure) {
    it(`${name} is the ${role} of ${stem}`, () => {
      expect(roleOf(name)).to.include({ role, stem, isSure: true });
    });
  }

  it('endings with more than one meaning, and names without one, are not taken silently', () => {
    for (const name of ['wall_n.png', 'wall_d.png', 'wall_mask.png', 'wall_r.png']) {
      expect(roleOf(name), name).to.include({ isSure: false, stem: 'wall' });
    }
    expect(roleOf('DSC 0412.jpg')).to.include({ role: null, isSure: false });
    // Words that name a material as often as a map, where they stand before another.
    for (const name of ['metal plate.jpg', 'rough wall.jpg', 'n.png'])
      expect(roleOf(name), name).to.include({ role: null, isSure: false });
  });

  it('say where green points', () => {
    expect(roleOf('wall_nor_gl.png').green).to.equal('up');
    expect(roleOf('wall_normal_dx_2k.png').green).to.equal('down');
    expect(roleOf('wall_normal.png').green).to.equal(null);
    expect(roleOf('wall_metallic.png')).to.include({ role: 'metallic', isSure: true, stem: 'wall' });
    expect(roleOf('wall_emissive.png')).to.include({ role: 'emission', isSure: true, stem: 'wall' });
    expect(roleOf('wall_specular.png')).to.include({ role: 'specular', isSure: true });
  });

  it('say what lies in the channels of a packed picture', () => {
    const packed: [string, string | null, string[]][] = [
      ['wall_orm.png', null, ['occlusion', 'roughness', 'metallic']],
      ['wall-RMA-2k.png', null, ['roughness', 'metallic', 'occlusion']],
      ['wall_metallicRoughness.png', null, ['none', 'roughness', 'metallic']],
      ['wall_occlusion-roughness-metallic.png', null, ['occlusion', 'roughness', 'metallic']],
      ['wall_metal_rough_ao_height.png', null, ['metallic', 'roughness', 'occlusion', 'height']],
      ['wall_normal-gloss.png', 'normal', ['gloss']],
      ['wall_base color_opacity.png', 'colour', ['opacity']],
    ];
    for (const [name, role, maps] of packed) {
      const read = roleOf(name);
      expect(read, name).to.include({ role, isSure: true, stem: 'wall' });
      expect(read.packed, name).to.deep.equal(maps);
    }
    // A wall of metal: too few names in a row for a packed picture.
    expect(roleOf('metal_roughness.png').packed).to.equal(null);
  });

  it('are told from the list of channels in a manifest too', () => {
    expect(roleOfContents(['albedo.r', 'albedo.g', 'albedo.b', 'opacity'])).to.deep.equal({
      role: 'colour',
      packed: ['opacity'],
    });
    expect(roleOfContents(['0.5', '1 − roughness', 'metallic'])).to.deep.equal({
      role: null,
      packed: ['none', 'gloss', 'metallic'],
    });
    expect(roleOfContents(['height'])).to.deep.equal({ role: 'height', packed: null });
    expect(roleOfContents(['dielectric.r', 'dielectric.g', 'dielectric.b'])).to.equal(null);
  });

  it('bring sets of a folder together by name and by folder, plain names too', () => {
    const at = (path: string) => ({ name: path.split('/').at(-1)!, path });
    const files = [
      'yard/gate/color.png',
      'yard/gate/normal.png',
      'yard/wall/Color.png',
      'yard/wall/height.png',
      'yard/rain_albedo.png',
      'yard/rain_ao_2k.png',
      'yard/metal.jpg',
      'yard/glow.jpg',
    ].map(at);
    const sets = setsOf(files, ({ path }) => path.split('/').slice(0, -1).join('/'));
    expect(sets.map(({ stem, files: { length } }) => [stem, length])).to.deep.equal([
      ['gate', 2],
      ['wall', 2],
      ['rain', 2],
      // Two photos called by their materials are no set.
      ['', 1],
      ['', 1],
    ]);
  });

  it('a file called like a set with a word more belongs to it, to be asked about', () => {
    const names = ['gate_albedo.png', 'gate_normal.png', 'gate_x.png', 'gateway.jpg'];
    const [gate, alone] = setsOf(names.map((name) => ({ name })));
    expect(gate.files.map(({ read }) => read.role)).to.deep.equal(['colour', 'normal', null]);
    expect(alone.files[0].file.name).to.equal('gateway.jpg');
  });

  it('bring a set together and leave photos alone', () => {
    const names = [
      'wall_albedo.png',
      'wall_normal.png',
      'wall_height.png',
      'shells 1.jpg',
      'shells 2.jpg',
      'gate_albedo.png',
    ];
    const sets = setsOf(names.map((name) => ({ name })));
    expect(sets.map(({ files }) => files.length)).to.deep.equal([3, 1, 1, 1]);
    expect(sets[0].files.map(({ read }) => read.role)).to.deep.equal(['colour', 'normal', 'height']);
  });
});
