import { decodePicture, sha256Of, sourceHost } from '@zesty-tile/codecs';
import {
  contentOf,
  Engine,
  type MapName,
  mapRaster,
  newRecipe,
  PROFILE_NAMES,
  PROFILES,
  type ProfileName,
  type Recipe,
  type SourceRef,
  type Surface,
  setsOf,
} from '@zesty-tile/core';
import { makeCrate } from '@zesty-tile/crates';
import { expect } from 'chai';
import sharp from 'sharp';
import { givenOf, judged, type PictureSet, problemsOf, setOf } from '../src/stations/source/picture-sets.ts';
import { setOfCrate } from '../src/yard/sets/crate-facts.ts';
import { setOfGlb } from '../src/yard/sets/glb-set.ts';

const N = 256;
const TAU = 2 * Math.PI;

/** A picture that tiles, from values 0..1 at places 0..1. */
async function drawn(
  channels: 1 | 3 | 4,
  value: (x: number, y: number, c: number) => number,
): Promise<Buffer> {
  const data = new Uint8Array(N * N * channels);
  for (let i = 0; i < N * N; i++)
    for (let c = 0; c < channels; c++)
      data[i * channels + c] = Math.round(255 * value((i % N) / N, Math.floor(i / N) / N, c));
  return sharp(data, { raw: { width: N, height: N, channels } })
    .png()
    .toBuffer();
}

const wave = (x: number, y: number, k: number) => 0.5 + 0.5 * Math.sin(TAU * k * x) * Math.cos(TAU * k * y);

/** Files by their SHA-256, as an engine reads them. */
function store() {
  const files = new Map<string, Uint8Array>();
  return {
    host: sourceHost(async ({ sha256 }) => files.get(sha256)!),
    async put(bytes: Uint8Array, name: string) {
      const sha256 = sha256Of(bytes);
      files.set(sha256, bytes);
      const { width, height } = await sharp(bytes).metadata();
      return { sha256, width, height, name };
    },
    bytesOf: (sha256: string) => files.get(sha256)!,
  };
}

const withSettings = (over: Partial<Record<keyof Recipe['stations'], object>>): Recipe => {
  const base = newRecipe();
  const stations = Object.fromEntries(
    Object.entries(base.stations).map(([name, settings]) => [
      name,
      { ...settings, ...over[name as 'square'] },
    ]),
  );
  return { ...base, stations } as unknown as Recipe;
};

const TILES = {
  square: { size: N, share: 1, edgeMetres: 1.5 },
  even: { amount: 0, colour: 0 },
  join: { method: 'none' },
  gauge: { fit: false, hold: false },
};

/** The tile that is crated: with opacity, emission, and a metallic of its own. */
async function start() {
  const files = store();
  const colour = await drawn(4, (x, y, c) =>
    c === 3 ? 0.3 + 0.6 * wave(x, y, 1) : 0.3 + 0.2 * wave(x, y, c + 2),
  );
  const source = await files.put(colour, 'lid.png');
  const given = {
    metallic: await files.put(await drawn(1, (x) => (x < 0.5 ? 0 : 1)), 'metallic.png'),
    roughness: await files.put(await drawn(1, (x, y) => 0.2 + 0.6 * wave(x, y, 4)), 'roughness.png'),
    emission: await files.put(await drawn(3, (x, y, c) => (c === 0 ? wave(x, y, 2) : 0.1)), 'emission.png'),
  };
  const recipe = (profile: ProfileName) =>
    withSettings({ ...TILES, source: { given }, relief: { depthMm: 30 }, crate: { profile } });
  return { files, source, recipe };
}

async function surfaceOf(
  recipe: Recipe,
  source: SourceRef,
  host: ReturnType<typeof store>['host'],
): Promise<Surface> {
  return (await new Engine(host, 0).evaluate({ recipe, source, size: N })).surface!;
}

/** The set as the dialog has it once every picture is read. */
async function read(
  named: ReturnType<typeof setsOf<File>>[number],
  files: ReturnType<typeof store>,
): Promise<PictureSet> {
  const set = setOf(named);
  const members = await Promise.all(
    set.members.map(async (member, k) => {
      const bytes = new Uint8Array(await named.files[k].file.arrayBuffer());
      const picture = await files.put(bytes, member.file);
      return judged(member, picture, contentOf(await decodePicture(bytes)));
    }),
  );
  return { ...set, members };
}

/** How far a map is from another, on average. */
function distance(a: Surface, b: Surface, map: MapName): number {
  const [one, other] = [mapRaster(a, map), mapRaster(b, map)];
  if (!one || !other) return one === other ? 0 : 1;
  let sum = 0;
  for (const [c, plane] of one.planes.entries())
    for (let i = 0; i < plane.length; i++) sum += Math.abs(plane[i] - other.planes[c][i]);
  return sum / (one.planes.length * N * N);
}

/** Codes of eight bits, rounded twice. */
const NEAR = 1.5 / 255;

const COMMON: MapName[] = ['normal', 'occlusion', 'opacity', 'emission'];
const BY_METALLIC: MapName[] = [...COMMON, 'albedo', 'roughness', 'metallic'];
const BY_SPECULAR: MapName[] = [...COMMON, 'cavity', 'height', 'diffuse', 'specular', 'gloss'];
const HELD: Record<ProfileName, MapName[]> = {
  separate: [...BY_METALLIC, 'cavity', 'height'],
  packed: [...BY_METALLIC, 'cavity', 'height'],
  'specular-gloss': BY_SPECULAR,
  'normal-gloss': BY_SPECULAR,
  'two-maps': ['normal', 'opacity'],
  gltf: BY_METALLIC,
  materialx: [...BY_METALLIC, 'height'],
};

describe('a crate that is dropped in again', () => {
  let tile: Awaited<ReturnType<typeof start>>;
  let first: Surface;
  before(async () => {
    tile = await start();
    first = await surfaceOf(tile.recipe('separate'), tile.source, tile.files.host);
  });

  const made = new Map<ProfileName, File[]>();
  const crated = async (profile: ProfileName): Promise<File[]> => {
    const known = made.get(profile);
    if (known) return known;
    const out: File[] = [];
    made.set(profile, out);
    await makeCrate(
      new Engine(tile.files.host, 0),
      { recipe: tile.recipe(profile), source: tile.source },
      { tile: 'Lemon lid', crate: 1 },
      { ...tile.source, file: 'lid.png' },
      async ({ name, bytes }) => {
        out.push(new File([bytes as Uint8Array<ArrayBuffer>], name));
      },
    );
    return out;
  };

  const setAgain = async (set: PictureSet, over: Parameters<typeof withSettings>[0]): Promise<Surface> => {
    expect(problemsOf(set)).to.deep.equal([]);
    const colour = set.members.find(({ role }) => role === 'colour')!.picture!;
    const source = { given: givenOf(set), givenGreen: set.green ?? 'up' };
    return surfaceOf(withSettings({ ...TILES, ...over, source }), colour, tile.files.host);
  };

  for (const profile of PROFILE_NAMES) {
    it(`comes back whole: ${PROFILES[profile].name}`, async () => {
      const files = await crated(profile);
      const pictures = files.filter(({ name }) => name.endsWith('.png'));
      const document = files.find(({ name }) => name.endsWith('.glb'));
      const manifest = files.find(({ name }) => name.endsWith('.tile.json'))!;
      const known = document ? null : await setOfCrate(manifest, pictures);
      const named = document ? await setOfGlb(document) : known!.set;
      const set = await read(named!, tile.files);
      const again = await setAgain(set, known?.facts?.first ?? {});
      for (const map of HELD[profile]) expect(distance(first, again, map), map).to.be.below(NEAR);
      if (known) expect(again.depthMm).to.be.closeTo(first.depthMm, 1e-6);
    });

    if (profile === 'gltf') continue;
    it(`is read by its names alone where its manifest is gone: ${PROFILES[profile].name}`, async () => {
      const pictures = (await crated(profile)).filter(({ name }) => name.endsWith('.png'));
      const sets = setsOf(pictures);
      expect(sets.filter(({ files }) => files.length > 1)).to.have.length(1);
      const [byName] = sets.sort((a, b) => b.files.length - a.files.length);
      const set = await read(byName, tile.files);
      const again = await setAgain(set, { relief: { depthMm: first.depthMm } });
      for (const map of HELD[profile]) expect(distance(first, again, map), map).to.be.below(NEAR);
    });
  }
});
