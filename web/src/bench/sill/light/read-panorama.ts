import { type Panorama, Raster, resizeArea, srgbToLinear } from '@zesty-tile/core';
import type { PanoramaFormat } from './around.ts';

/** Width at which a panorama is kept: more is not seen in what the Sill mirrors. */
const WIDTH = 1024;

async function plain(bytes: ArrayBuffer): Promise<Panorama> {
  const bitmap = await createImageBitmap(new Blob([bytes]), { imageOrientation: 'flipY' });
  const { width, height } = bitmap;
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d')!;
  context.drawImage(bitmap, 0, 0);
  bitmap.close();
  const { data } = context.getImageData(0, 0, width, height);
  const linear = Float32Array.from({ length: 256 }, (_, code) => srgbToLinear(code / 255));
  const rgb = new Float32Array(3 * width * height);
  for (let i = 0; i < width * height; i++)
    for (let c = 0; c < 3; c++) rgb[3 * i + c] = linear[data[4 * i + c]];
  return { width, height, rgb };
}

async function bright(format: 'hdr' | 'exr', bytes: ArrayBuffer): Promise<Panorama> {
  const loader =
    format === 'hdr'
      ? new (await import('three/examples/jsm/loaders/HDRLoader.js')).HDRLoader()
      : new (await import('three/examples/jsm/loaders/EXRLoader.js')).EXRLoader();
  const { FloatType } = await import('three');
  loader.setDataType(FloatType);
  const { data, width, height, flipY } = loader.parse(bytes) as unknown as {
    data: Float32Array;
    width: number;
    height: number;
    /** Whether its first row is the topmost. */
    flipY: boolean;
  };
  if (data.length !== 4 * width * height) throw new Error('It has not three colours.');
  const rgb = new Float32Array(3 * width * height);
  for (let y = 0, to = 0; y < height; y++) {
    const row = flipY ? height - 1 - y : y;
    for (let x = 0; x < width; x++)
      for (let c = 0; c < 3; c++, to++) rgb[to] = Math.max(0, data[4 * (row * width + x) + c]);
  }
  return { width, height, rgb };
}

/** The same at the width that is kept. */
function kept({ width, height, rgb }: Panorama): Panorama {
  const planes = [0, 1, 2].map((c) =>
    Float32Array.from({ length: width * height }, (_, i) => rgb[3 * i + c]),
  );
  const small = resizeArea(new Raster(width, height, planes), WIDTH, WIDTH / 2);
  const out = new Float32Array(3 * small.width * small.height);
  small.planes.forEach((plane, c) => {
    for (let i = 0; i < plane.length; i++) out[3 * i + c] = plane[i];
  });
  return { width: small.width, height: small.height, rgb: out };
}

/** A file's 360° picture. @throws Error in plain words. */
export async function readPanorama(format: PanoramaFormat, bytes: ArrayBuffer): Promise<Panorama> {
  let panorama: Panorama;
  try {
    panorama = format === 'picture' ? await plain(bytes) : await bright(format, bytes);
  } catch {
    throw new Error('The picture cannot be read. Save it again as HDR (.hdr), OpenEXR, PNG or JPEG.');
  }
  const { width, height } = panorama;
  if (Math.abs(width / height - 2) > 0.02)
    throw new Error(`The picture is ${width} × ${height} px; a 360° image must be twice as wide as high.`);
  return kept(panorama);
}
