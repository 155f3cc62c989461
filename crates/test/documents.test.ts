import { Engine, newRecipe, PROFILES, type Recipe, srgbToLinear } from '@zesty-tile/core';
import { makeCrate } from '@zesty-tile/crates';
import { expect } from 'chai';
import { validateBytes } from 'gltf-validator';
import { PNG } from 'pngjs';
import { SaxesParser } from 'saxes';
import { hostOf, photo, pixelsOf } from '../../core/test/engine/host.ts';

const size = 256;

/** What a crate of a made-up photo holds, by name. */
async function crateOf(over: { crate?: object; finish?: object; square?: object; relief?: object }) {
  const base = newRecipe();
  const stations = { ...base.stations } as Record<string, object>;
  for (const [name, settings] of Object.entries({ ...over, square: { size, ...over.square } }))
    stations[name] = { ...stations[name], ...settings };
  const recipe = { ...base, stations } as unknown as Recipe;
  const pixels = pixelsOf(photo(320, 320));
  const source = { sha256: 'a'.repeat(64), width: 320, height: 320 };
  const files = new Map<string, Uint8Array>();
  const told: number[] = [];
  const { manifest } = await makeCrate(
    new Engine(hostOf(pixels), 0),
    { recipe, source },
    { tile: 'Wall', crate: 3 },
    { ...source, file: 'wall.png' },
    async ({ name, bytes }) => {
      files.set(name, bytes);
    },
    ({ index, share, count }) => told.push((index + share) / count),
  );
  return { files, manifest, told };
}

interface Gltf {
  asset: { version: string };
  extensionsRequired: string[];
  materials: [
    {
      normalTexture: { extensions: { KHR_texture_transform: { scale: number[] } } };
      pbrMetallicRoughness: { baseColorTexture: { index: number } };
      extensions?: {
        KHR_materials_specular?: { specularColorFactor?: number[]; specularColorTexture?: object };
      };
    },
  ];
  textures: { source: number }[];
  images: { bufferView: number; mimeType: string }[];
  bufferViews: { byteOffset?: number; byteLength: number }[];
  accessors: { max?: number[] }[];
}

/** A binary glTF, read by the format's own description. */
function readGlb(bytes: Uint8Array): { json: Gltf; binary: Buffer } {
  const all = Buffer.from(bytes);
  expect([all.readUInt32LE(0), all.readUInt32LE(4), all.readUInt32LE(8)]).to.deep.equal([
    0x46546c67,
    2,
    all.length,
  ]);
  const length = all.readUInt32LE(12);
  return { json: JSON.parse(all.toString('utf8', 20, 20 + length)), binary: all.subarray(28 + length) };
}

describe('a binary glTF', () => {
  it('passes the validator without an error or a warning, and holds the tile at true size', async () => {
    const { files, manifest } = await crateOf({
      crate: { profile: 'gltf' },
      square: { edgeMetres: 2.5, shape: '2:1' },
    });
    expect([...files.keys()]).to.deep.equal(['Wall.glb', 'Wall.tile.json']);
    const bytes = files.get('Wall.glb')!;
    const { issues } = await validateBytes(bytes);
    expect(issues.messages.filter(({ severity }) => severity < 2)).to.deep.equal([]);
    const { json, binary } = readGlb(bytes);
    expect(json.extensionsRequired).to.include('KHR_texture_transform');
    const { scale } = json.materials[0].normalTexture.extensions.KHR_texture_transform;
    expect(scale[0]).to.be.closeTo(1 / 2.5, 1e-6);
    expect(scale[1]).to.be.closeTo(1 / 1.25, 1e-6);
    // Two repeats across and down, in metres.
    expect(json.accessors.some(({ max }) => max?.length === 3 && max[0] === 2.5 && max[2] === 1.25)).to.equal(
      true,
    );
    const { index } = json.materials[0].pbrMetallicRoughness.baseColorTexture;
    const view = json.bufferViews[json.images[json.textures[index].source].bufferView];
    const from = view.byteOffset ?? 0;
    const png = PNG.sync.read(binary.subarray(from, from + view.byteLength));
    expect([png.width, png.height]).to.deep.equal([size, size / 2]);
    expect(manifest.files.map(({ inside }) => inside)).to.deep.equal(['Wall.glb', 'Wall.glb', 'Wall.glb']);
    expect(manifest.texts.map(({ file }) => file)).to.deep.equal(['Wall.glb']);
    expect(json.materials[0].extensions?.KHR_materials_specular).to.equal(undefined);
  });

  it('says the F0 of what is no metal where it is not 0.04: as one colour, or as a map of shares', async () => {
    const one = await crateOf({
      crate: { profile: 'gltf' },
      finish: { f0From: 'colour', f0Colour: '#404040' },
    });
    const specular = (files: Map<string, Uint8Array>) =>
      readGlb(files.get('Wall.glb')!).json.materials[0].extensions?.KHR_materials_specular;
    for (const factor of specular(one.files)!.specularColorFactor!)
      expect(factor).to.be.closeTo(srgbToLinear(64 / 255) / 0.04, 1e-6);
    expect(specular(one.files)!.specularColorTexture).to.equal(undefined);
    const varied = await crateOf({
      crate: { profile: 'gltf' },
      finish: { f0From: 'tone', f0Low: 0.03, f0High: 0.06 },
    });
    expect(specular(varied.files)!.specularColorTexture).to.be.an('object');
    const [brightest] = specular(varied.files)!.specularColorFactor!;
    expect(brightest).to.be.within(1.2, 1.5);
    const { issues } = await validateBytes(varied.files.get('Wall.glb')!);
    expect(issues.messages.filter(({ severity }) => severity < 2)).to.deep.equal([]);
  });
});

/** A MaterialX document by a strict parser: elements by name with their attributes, and what is in them. */
function readXml(bytes: Uint8Array) {
  interface Element {
    tag: string;
    attributes: Record<string, string>;
    inside: Element[];
  }
  const root: Element = { tag: '', attributes: {}, inside: [] };
  const open = [root];
  const parser = new SaxesParser();
  parser.on('error', (error) => {
    throw error;
  });
  parser.on('opentag', ({ name, attributes }) => {
    const element = { tag: name, attributes: attributes as Record<string, string>, inside: [] };
    open.at(-1)!.inside.push(element);
    open.push(element);
  });
  parser.on('closetag', () => {
    open.pop();
  });
  parser.write(new TextDecoder().decode(bytes)).close();
  const all: Element[] = [];
  const walk = (element: Element) => {
    all.push(element);
    element.inside.forEach(walk);
  };
  walk(root.inside[0]);
  return all;
}

/** Types of the standard surface's inputs, as its definition has them. */
const SURFACE: Record<string, string> = {
  base: 'float',
  base_color: 'color3',
  metalness: 'float',
  specular_color: 'color3',
  specular_roughness: 'float',
  specular_IOR: 'float',
  emission: 'float',
  emission_color: 'color3',
  opacity: 'color3',
  normal: 'vector3',
};

describe('a MaterialX document', () => {
  it('is sound XML whose every reference leads to something of the same type, and whose pictures are there', async () => {
    for (const crate of [
      { profile: 'materialx' },
      {
        profile: 'own',
        ownProfile: { ...PROFILES.packed, document: 'materialx' },
      },
    ]) {
      const { files } = await crateOf({ crate, relief: { depthMm: 12 } });
      const elements = readXml(files.get('Wall.mtlx')!);
      expect(elements[0].attributes).to.include({ version: '1.38', colorspace: 'lin_rec709' });
      const named = new Map(
        elements.filter(({ tag }) => tag !== 'input').map((one) => [one.attributes.name, one]),
      );
      const graph = elements.find(({ tag }) => tag === 'nodegraph')!;
      const outputs = new Map(
        graph.inside
          .filter(({ tag }) => tag === 'output')
          .map((one) => [one.attributes.name, one.attributes]),
      );
      for (const { attributes, tag } of elements) {
        if (attributes.nodename) {
          const target = named.get(attributes.nodename)!;
          expect(target.attributes.type, attributes.nodename).to.equal(attributes.type);
        }
        if (tag === 'input' && attributes.output)
          expect(outputs.get(attributes.output)?.type, attributes.output).to.equal(attributes.type);
        if (attributes.type === 'filename') expect([...files.keys()]).to.include(attributes.value);
      }
      const surface = named.get('surface')!;
      for (const { attributes } of surface.inside) expect(attributes.type).to.equal(SURFACE[attributes.name]);
      const given = surface.inside.map(({ attributes }) => attributes.name);
      expect(given).to.include.members(['base_color', 'metalness', 'specular_roughness', 'specular_IOR']);
      const relief = named.get('relief')!.inside.map(({ attributes }) => attributes);
      expect(relief.find(({ name }) => name === 'scale')?.value).to.equal('0.012');
      const spaces = elements.filter(({ attributes }) => attributes.type === 'filename');
      for (const { attributes } of spaces)
        expect(attributes.colorspace === 'srgb_texture', attributes.value).to.equal(
          /albedo|specular|dielectric/.test(attributes.value),
        );
    }
  });
});

describe('a crate', () => {
  it('of several sizes, with a text of one’s own, tells of each file and says all in its manifest', async () => {
    const { files, manifest, told } = await crateOf({
      crate: {
        profile: 'two-maps',
        ladder: 2,
        names: '{tile}_{map}',
        text: { ending: 'txt', text: '{{#files}}{{name}} {{size}}\n{{/files}}depth {{depthShare}}' },
      },
      relief: { depthMm: 10 },
    });
    expect([...files.keys()]).to.deep.equal([
      'Wall_colour_256.png',
      'Wall_normal_256.png',
      'Wall_colour_128.png',
      'Wall_normal_128.png',
      'Wall.txt',
      'Wall.tile.json',
    ]);
    const text = new TextDecoder().decode(files.get('Wall.txt')!);
    expect(text).to.equal(
      'Wall_colour_256.png 256\nWall_normal_256.png 256\nWall_colour_128.png 128\nWall_normal_128.png 128\ndepth 0.01',
    );
    const small = PNG.sync.read(Buffer.from(files.get('Wall_normal_128.png')!));
    let most = 0;
    for (let i = 0; i < small.data.length; i += 4) {
      const length = Math.hypot(...[0, 1, 2].map((c) => (2 * small.data[i + c]) / 255 - 1));
      most = Math.max(most, Math.abs(length - 1));
    }
    expect(most).to.be.below(0.01);
    expect(manifest).to.include({ crate: 3, name: 'Wall' });
    expect(manifest.files.map(({ width }) => width)).to.deep.equal([256, 256, 128, 128]);
    expect(told.every((share, k) => k === 0 || share >= told[k - 1])).to.equal(true);
    expect(told.at(-1)).to.equal(1);
  });
});
