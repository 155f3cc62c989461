import { Document, NodeIO, type Texture, type TextureInfo } from '@gltf-transform/core';
import { KHRMaterialsSpecular, KHRTextureTransform } from '@gltf-transform/extensions';
import { type MapName, Problem, USUAL_F0 } from '@zesty-tile/core';
import { validateBytes } from 'gltf-validator';
import { type Material, pictureOf } from './material.ts';

type Vector = readonly [number, number, number];

/** Faces of a block: where each looks, and where its picture's right and down lie. */
const FACES: readonly { out: Vector; right: Vector; down: Vector }[] = [
  { out: [0, 1, 0], right: [1, 0, 0], down: [0, 0, 1] },
  { out: [0, -1, 0], right: [1, 0, 0], down: [0, 0, -1] },
  { out: [0, 0, 1], right: [1, 0, 0], down: [0, -1, 0] },
  { out: [0, 0, -1], right: [-1, 0, 0], down: [0, -1, 0] },
  { out: [1, 0, 0], right: [0, 0, -1], down: [0, -1, 0] },
  { out: [-1, 0, 0], right: [0, 0, 1], down: [0, -1, 0] },
];

/** Repeats of the tile over the slab, and its thickness as a share of the tile's edge. */
const REPEATS = 2;
const THICKNESS = 0.05;

const CORNERS = [
  [-1, -1],
  [-1, 1],
  [1, 1],
  [1, -1],
] as const;

/** A slab in metres; its texture coordinates are metres too, from each face's upper left corner. */
function slabOf(width: number, height: number) {
  const half: Vector = [
    (REPEATS * width) / 2,
    (THICKNESS * Math.max(width, height)) / 2,
    (REPEATS * height) / 2,
  ];
  const along = (axis: Vector) => Math.abs(axis[0] * half[0] + axis[1] * half[1] + axis[2] * half[2]);
  const positions: number[] = [];
  const normals: number[] = [];
  const tangents: number[] = [];
  const coordinates: number[] = [];
  const indices: number[] = [];
  for (const { out, right, down } of FACES) {
    const first = positions.length / 3;
    const [r, d] = [along(right), along(down)];
    for (const [x, y] of CORNERS) {
      for (let k = 0; k < 3; k++) positions.push(half[k] * out[k] + x * r * right[k] + y * d * down[k]);
      normals.push(...out);
      // The picture’s right; its up is normal × tangent.
      tangents.push(...right, 1);
      coordinates.push((x + 1) * r, (y + 1) * d);
    }
    for (const k of [0, 1, 2, 0, 2, 3]) indices.push(first + k);
  }
  return { positions, normals, tangents, coordinates, indices };
}

/**
 * A binary glTF 2.0: a slab two repeats wide at true size, with the tile as its material. Texture coordinates are in
 * metres; KHR_texture_transform turns them into repeats where these are not one metre. Where the F0 of what is not metal is not 0.04 it is in
 * KHR_materials_specular.
 */
export async function encodeGltf(material: Material): Promise<Uint8Array> {
  const { name, pictures, widthMetres, heightMetres, dielectric } = material;
  const document = new Document();
  const buffer = document.createBuffer();
  // On a tile of one metre a repeat is a metre: then nothing is to be transformed, and no reader need know how.
  const transforms =
    widthMetres === 1 && heightMetres === 1
      ? null
      : document.createExtension(KHRTextureTransform).setRequired(true);
  const textures = new Map<string, Texture>();
  const textureOf = (map: MapName): Texture | null => {
    const found = pictureOf(pictures, map);
    if (!found) return null;
    const { name: file, bytes, picture } = found;
    let texture = textures.get(file);
    if (!texture) {
      texture = document
        .createTexture(file)
        .setImage(bytes)
        .setMimeType(picture.file.format === 'png' ? 'image/png' : 'image/jpeg');
      textures.set(file, texture);
    }
    return texture;
  };
  const inMetres = (info: TextureInfo | null) =>
    transforms &&
    info?.setExtension(
      'KHR_texture_transform',
      transforms.createTransform().setScale([1 / widthMetres, 1 / heightMetres]),
    );
  const made = document.createMaterial(name).setMetallicFactor(1).setRoughnessFactor(1);
  const colour = textureOf('albedo');
  made.setBaseColorTexture(colour);
  if (pictureOf(pictures, 'opacity')) made.setAlphaMode('MASK').setAlphaCutoff(0.5).setDoubleSided(true);
  made.setNormalTexture(textureOf('normal'));
  made.setMetallicRoughnessTexture(textureOf('roughness'));
  made.setOcclusionTexture(textureOf('occlusion'));
  const glow = textureOf('emission');
  if (glow) made.setEmissiveTexture(glow).setEmissiveFactor([1, 1, 1]);
  for (const info of [
    made.getBaseColorTextureInfo(),
    made.getNormalTextureInfo(),
    made.getMetallicRoughnessTextureInfo(),
    made.getOcclusionTextureInfo(),
    made.getEmissiveTextureInfo(),
  ])
    inMetres(info);
  const share = textureOf('dielectric');
  if (share || dielectric.some((value) => Math.abs(value - USUAL_F0) > 1e-4)) {
    const specular = document
      .createExtension(KHRMaterialsSpecular)
      .createSpecular()
      .setSpecularColorFactor(dielectric.map((value) => value / USUAL_F0) as [number, number, number])
      .setSpecularColorTexture(share);
    inMetres(specular.getSpecularColorTextureInfo());
    made.setExtension('KHR_materials_specular', specular);
  }
  const { positions, normals, tangents, coordinates, indices } = slabOf(widthMetres, heightMetres);
  const accessor = (type: 'VEC2' | 'VEC3' | 'VEC4', values: number[]) =>
    document.createAccessor().setType(type).setArray(new Float32Array(values)).setBuffer(buffer);
  const primitive = document
    .createPrimitive()
    .setAttribute('POSITION', accessor('VEC3', positions))
    .setAttribute('NORMAL', accessor('VEC3', normals))
    .setAttribute('TANGENT', accessor('VEC4', tangents))
    .setAttribute('TEXCOORD_0', accessor('VEC2', coordinates))
    .setIndices(document.createAccessor().setArray(new Uint16Array(indices)).setBuffer(buffer))
    .setMaterial(made);
  const node = document.createNode(name).setMesh(document.createMesh(name).addPrimitive(primitive));
  document.getRoot().setDefaultScene(document.createScene(name).addChild(node));
  document.getRoot().getAsset().generator = 'Zesty Tile';
  return new NodeIO().registerExtensions([KHRTextureTransform, KHRMaterialsSpecular]).writeBinary(document);
}

/** Errors and warnings of the reference validator for a glTF. @throws Problem `read_back` where there are any. */
export async function checkGltf(name: string, bytes: Uint8Array): Promise<{ errors: 0; warnings: 0 }> {
  const { issues } = await validateBytes(bytes, { uri: name });
  const worst = issues.messages.find(({ severity }) => severity < 2);
  if (worst) {
    throw new Problem(
      'read_back',
      `The file “${name}” is not a valid glTF (${worst.message}); the crate was not finished.`,
      'Crate it again with another profile, and report this one.',
    );
  }
  return { errors: 0, warnings: 0 };
}
