import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { NodeIO } from '@gltf-transform/core';
import { KHRMaterialsSpecular, KHRTextureTransform } from '@gltf-transform/extensions';
import { decodeExr, isExr } from '@zesty-tile/codecs';
import { GIVEN_MAPS, type GivenMap, Problem } from '@zesty-tile/core';
import sharp from 'sharp';
import type { Manifest, ManifestFile } from './manifest.ts';

/** The maps that stand in a crate's files, each as a picture file of its own. */
export interface CrateSet {
  colour: Uint8Array;
  /** Name of the map the colour is: what base colour and metallic go with, or the diffuse of specular and gloss. */
  of: 'albedo' | 'diffuse';
  given: Partial<Record<GivenMap, Uint8Array>>;
  /** Where the green of its normal points. */
  green: 'up' | 'down';
}

const PLANES: Partial<Record<string, readonly string[]>> = {
  normal: ['normal.x', 'normal.y', 'normal.z'],
  albedo: ['albedo.r', 'albedo.g', 'albedo.b'],
  diffuse: ['diffuse.r', 'diffuse.g', 'diffuse.b'],
  specular: ['specular.r', 'specular.g', 'specular.b'],
  emission: ['emission.r', 'emission.g', 'emission.b'],
};
const planesOf = (map: string) => PLANES[map] ?? [map];

/** The largest picture that holds a map as it is, and where in it. */
function placeOf(manifest: Manifest, map: string): { file: ManifestFile; at: number } | null {
  const wanted = planesOf(map);
  let best: { file: ManifestFile; at: number } | null = null;
  for (const file of manifest.files) {
    const at = file.contents.findIndex((_, k) => wanted.every((plane, c) => file.contents[k + c] === plane));
    if (at >= 0 && (!best || file.width > best.file.width)) best = { file, at };
  }
  return best;
}

/** Bytes of a picture of a crate, from its own file or from inside a document. */
async function bytesOf(folder: string, { file, inside }: ManifestFile): Promise<Uint8Array> {
  if (!inside) return readFile(join(folder, file));
  const io = new NodeIO().registerExtensions([KHRTextureTransform, KHRMaterialsSpecular]);
  const document = await io.readBinary(await readFile(join(folder, inside)));
  const texture = document
    .getRoot()
    .listTextures()
    .find((one) => one.getName() === file);
  const image = texture?.getImage();
  if (!image) throw new Problem('not_found', `The picture ${file} is not in ${inside}.`, 'Crate it again.');
  return image;
}

/** Some channels of a picture as a picture of their own, as many bits as it has. */
async function part(bytes: Uint8Array, at: number, count: number): Promise<Uint8Array> {
  if (isExr(bytes)) {
    const { width, height, channels, data } = await decodeExr(bytes);
    const codes = new Uint16Array(width * height * count);
    for (let i = 0; i < width * height; i++)
      for (let c = 0; c < count; c++)
        codes[i * count + c] = Math.round(65535 * Math.min(1, Math.max(0, data[i * channels + at + c])));
    const raw = { width, height, channels: count as 1 | 3 };
    return sharp(codes, { raw, limitInputPixels: false })
      .toColourspace(count === 1 ? 'grey16' : 'rgb16')
      .png()
      .toBuffer();
  }
  const picture = sharp(bytes, { ignoreIcc: true, limitInputPixels: false });
  const { channels = 3 } = await picture.metadata();
  if (channels === count) return bytes;
  if (count === 3) return picture.removeAlpha().png().toBuffer();
  return picture
    .extractChannel(at as 0 | 1 | 2 | 3)
    .png()
    .toBuffer();
}

/** Endings of files that a source may be. */
const READ = /\.(png|jpe?g|webp|tiff?|exr)$/i;

/**
 * Takes the maps of a crate out of its files. Where it holds metallic the specular colour follows from that and is left.
 * @throws Problem `no_colour` where it holds no colour that a tile can begin from.
 */
export async function crateSet(manifest: Manifest, folder: string): Promise<CrateSet> {
  const take = async (map: string) => {
    const found = placeOf(manifest, map);
    if (!found || !READ.test(found.file.file)) return null;
    return part(await bytesOf(folder, found.file), found.at, planesOf(map).length);
  };
  for (const of of ['albedo', 'diffuse'] as const) {
    const colour = await take(of);
    if (!colour) continue;
    const given: CrateSet['given'] = {};
    for (const map of GIVEN_MAPS) {
      if (map === 'specular' && of === 'albedo') continue;
      if (map === 'gloss' && given.roughness) continue;
      const bytes = await take(map);
      if (bytes) given[map] = bytes;
    }
    const green = placeOf(manifest, 'normal')?.file.normalY === '-Y' ? 'down' : 'up';
    return { colour, of, given, green };
  }
  throw new Problem(
    'no_colour',
    'The crate holds no colour that could be opened as a tile.',
    'Open it as a recipe instead: that makes all its maps again.',
  );
}
