import { useQuery, useQueryClient } from '@tanstack/react-query';
import * as THREE from 'three';
import { answerOf, api } from '../../../api/client.ts';
import { allRound } from './surroundings.ts';

export interface OwnSurroundings {
  id: string;
  name: string;
  format: 'hdr' | 'exr' | 'picture';
}

/** 360° pictures that were given, oldest first. */
export const useOwnSurroundings = (): OwnSurroundings[] =>
  useQuery({
    queryKey: ['surroundings'],
    queryFn: () => answerOf(api.surroundings.$get()),
  }).data?.surroundings ?? [];

/** Longest side that is kept of a plain picture: light from all sides needs no more. */
const MOST = 2048;

async function plainTexture(bytes: ArrayBuffer): Promise<THREE.Texture> {
  const bitmap = await createImageBitmap(new Blob([bytes]), { imageOrientation: 'flipY' });
  const scale = Math.min(1, MOST / bitmap.width);
  const canvas = new OffscreenCanvas(Math.round(bitmap.width * scale), Math.round(bitmap.height * scale));
  const context = canvas.getContext('2d')!;
  context.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  bitmap.close();
  const { data, width, height } = context.getImageData(0, 0, canvas.width, canvas.height);
  const texture = new THREE.DataTexture(new Uint8Array(data.buffer), width, height);
  texture.colorSpace = THREE.SRGBColorSpace;
  return texture;
}

interface FloatPicture {
  data: Float32Array<ArrayBuffer>;
  width: number;
  height: number;
  /** Whether its first row is the topmost. */
  flipY: boolean;
}

function turnedOver(
  data: Float32Array<ArrayBuffer>,
  width: number,
  height: number,
): Float32Array<ArrayBuffer> {
  const out = new Float32Array(data.length);
  const row = 4 * width;
  for (let y = 0; y < height; y++) out.set(data.subarray(y * row, (y + 1) * row), (height - 1 - y) * row);
  return out;
}

async function read(format: OwnSurroundings['format'], bytes: ArrayBuffer): Promise<THREE.Texture> {
  if (format === 'picture') return plainTexture(bytes);
  const loader =
    format === 'hdr'
      ? new (await import('three/examples/jsm/loaders/HDRLoader.js')).HDRLoader()
      : new (await import('three/examples/jsm/loaders/EXRLoader.js')).EXRLoader();
  loader.setDataType(THREE.FloatType);
  const { data, width, height, flipY } = loader.parse(bytes) as unknown as FloatPicture;
  if (data.length !== 4 * width * height) throw new Error('It has not three colours.');
  const upwards = flipY ? turnedOver(data, width, height) : data;
  return new THREE.DataTexture(upwards, width, height, THREE.RGBAFormat, THREE.FloatType);
}

/** A 360° picture as light from all sides. @throws Error in plain words. */
export async function textureFrom(
  format: OwnSurroundings['format'],
  bytes: ArrayBuffer,
): Promise<THREE.Texture> {
  let texture: THREE.Texture;
  try {
    texture = await read(format, bytes);
  } catch {
    throw new Error('The picture cannot be read. Save it again as HDR (.hdr), OpenEXR, PNG or JPEG.');
  }
  const { width, height } = texture.image as { width: number; height: number };
  if (Math.abs(width / height - 2) > 0.02) {
    texture.dispose();
    throw new Error(`The picture is ${width} × ${height} px; a 360° image must be twice as wide as high.`);
  }
  return allRound(texture);
}

/** Keeps a file's 360° picture, once it is known to be readable. @throws Error in plain words. */
export function useTakeSurroundings(): (file: File) => Promise<OwnSurroundings> {
  const queries = useQueryClient();
  return async (file) => {
    const format = /\.hdr$/i.test(file.name) ? 'hdr' : /\.exr$/i.test(file.name) ? 'exr' : 'picture';
    const bytes = await file.arrayBuffer();
    (await textureFrom(format, bytes)).dispose();
    const name = file.name.replace(/\.\w+$/, '');
    const { surroundings } = await answerOf<{ surroundings: OwnSurroundings }>(
      api.surroundings.$post({ query: { name } } as never, { init: { body: bytes } }) as never,
    );
    await queries.invalidateQueries({ queryKey: ['surroundings'] });
    return surroundings;
  };
}

/** The texture of surroundings that were given before. @throws Error in plain words. */
export async function ownTexture(id: string): Promise<THREE.Texture> {
  const { surroundings } = await answerOf(api.surroundings.$get());
  const own = surroundings.find((one) => one.id === id);
  if (!own) throw new Error('These surroundings are no longer there.');
  const answer = await api.surroundings[':id'].file.$get({ param: { id } });
  if (!answer.ok) throw new Error('These surroundings cannot be fetched.');
  return textureFrom(own.format, await answer.arrayBuffer());
}

/** Mean radiance of a texture from above and from below. */
export function skyAndGroundOf(texture: THREE.Texture): { sky: THREE.Color; ground: THREE.Color } {
  const { data, width, height } = texture.image as {
    data: Float32Array | Uint8Array;
    width: number;
    height: number;
  };
  const isCoded = data instanceof Uint8Array;
  const sums = [new THREE.Color(0, 0, 0), new THREE.Color(0, 0, 0)];
  const weights = [0, 0];
  const here = new THREE.Color();
  const step = Math.max(1, Math.floor(width / 64));
  for (let y = 0; y < height; y += step) {
    const rise = ((y + 0.5) / height - 0.5) * Math.PI;
    // Area of the row on the sphere, and how squarely it falls on a level surface.
    const weight = Math.cos(rise) * Math.abs(Math.sin(rise));
    const half = rise > 0 ? 0 : 1;
    for (let x = 0; x < width; x += step) {
      const at = 4 * (y * width + x);
      if (isCoded) here.setRGB(data[at] / 255, data[at + 1] / 255, data[at + 2] / 255, THREE.SRGBColorSpace);
      else here.setRGB(data[at], data[at + 1], data[at + 2]);
      sums[half].add(here.multiplyScalar(weight));
      weights[half] += weight;
    }
  }
  return { sky: sums[0].multiplyScalar(1 / weights[0]), ground: sums[1].multiplyScalar(1 / weights[1]) };
}
