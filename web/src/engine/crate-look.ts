import {
  type CratePlan,
  type CrateSettings,
  type Frame,
  isEncoded,
  KERNELS,
  type MapName,
  mapRaster,
  missingMaps,
  type PlannedPicture,
  packer,
  planCrate,
  type Raster,
  type Surface,
  samplesOf,
  sidesOf,
} from '@zesty-tile/core';
import type { LookedCrate, LookedFile, Thumbnail } from './protocol.ts';

/** Longer edge of the small pictures, and of what the size on disk is estimated from. */
const SMALL = 256;
const MEASURED = 512;

const byte = (value: number) => Math.round(255 * Math.min(1, Math.max(0, value)));

/** Planes 0…1 as a picture: one grey, three or four in colour, alpha not shown. */
function pictureOf(planes: readonly Float32Array[], width: number, height: number): Thumbnail {
  const rgba = new Uint8ClampedArray(4 * width * height);
  for (let i = 0; i < width * height; i++) {
    for (let c = 0; c < 3; c++) rgba[4 * i + c] = byte(planes[planes.length < 3 ? 0 : c][i]);
    rgba[4 * i + 3] = 255;
  }
  return { width, height, rgba };
}

/** Bytes of data once it is packed as PNG and its like are: each row from the one before. */
async function deflated(data: Uint8Array, row: number): Promise<number> {
  const differences = new Uint8Array(data.length);
  for (let i = 0; i < data.length; i++) differences[i] = data[i] - (i >= row ? data[i - row] : 0);
  const stream = new Blob([differences]).stream().pipeThrough(new CompressionStream('deflate'));
  return (await new Response(stream).arrayBuffer()).byteLength;
}

/** Bytes of a lossy picture, by the browser's own encoder. */
async function lossy(planes: Float32Array[], width: number, height: number, type: string): Promise<number> {
  const canvas = new OffscreenCanvas(width, height);
  canvas
    .getContext('2d')
    ?.putImageData(new ImageData(pictureOf(planes, width, height).rgba, width, height), 0, 0);
  return (await canvas.convertToBlob({ type, quality: 0.95 })).size;
}

/** What a whole chain of mips holds beside its first. */
const MIPS = 4 / 3;

function sidesWithin({ width, height }: PlannedPicture, frame: Frame, most: number) {
  const edge = Math.min(most, frame.size, Math.max(width, height));
  return sidesOf(frame.shape, edge);
}

async function bytesOf(
  picture: PlannedPicture,
  rasterOf: (map: MapName) => Raster,
  frame: Frame,
): Promise<number> {
  const { file } = picture;
  const sides = sidesWithin(picture, frame, MEASURED);
  const share = (picture.width * picture.height) / (sides.width * sides.height);
  const rows = packer(file, rasterOf, frame, sides);
  const { format, kind } = file;
  if (format === 'jpeg' || (format === 'webp' && kind === 'colour'))
    return share * (await lossy(rows(0, sides.height), sides.width, sides.height, `image/${format}`));
  const samples = samplesOf(rows, file, sides);
  const data = new Uint8Array(samples.buffer, samples.byteOffset, samples.byteLength);
  if (format === 'ktx2') return share * data.length * MIPS;
  return share * (await deflated(data, data.length / sides.height));
}

/** One file as it will look: small, and channel by channel. */
function lookedFile(
  picture: PlannedPicture,
  rasterOf: (map: MapName) => Raster,
  frame: Frame,
): Pick<LookedFile, 'picture' | 'channels'> {
  const { file } = picture;
  const { width, height } = sidesWithin(picture, frame, SMALL);
  const planes = packer(file, rasterOf, frame, { width, height })(0, height);
  // Linear colour is looked at through the curve of the screen.
  const isLinear = file.kind === 'colour' && !isEncoded(file);
  const shown = planes.map((plane, c) => (isLinear && c < 3 ? KERNELS.encodeSrgbPlane(plane) : plane));
  return {
    picture: pictureOf(shown, width, height),
    channels: shown.map((plane) => pictureOf([plane], width, height)),
  };
}

/**
 * What a crate will hold, by what is computed: each file small and channel by channel, its name, and about how many bytes
 * all of them will have. @throws Problem as `planCrate`.
 */
export async function lookedCrate(
  surface: Surface,
  frame: Frame,
  chosen: CrateSettings,
  naming: Parameters<typeof planCrate>[3],
): Promise<LookedCrate> {
  const wanted = { size: frame.wantedSize, shape: frame.shape };
  const plan: CratePlan = planCrate(chosen, missingMaps(surface), wanted, naming);
  const made = new Map<MapName, Raster>();
  const rasterOf = (map: MapName): Raster => {
    const raster = made.get(map) ?? mapRaster(surface, map)!;
    made.set(map, raster);
    return raster;
  };
  const files: LookedFile[] = [];
  let bytes = 0;
  for (const picture of plan.pictures) {
    bytes += await bytesOf(picture, rasterOf, frame);
    if (picture.rung > 0) continue;
    const { file, name, width, height } = picture;
    files.push({ ending: file.ending, name, width, height, ...lookedFile(picture, rasterOf, frame) });
  }
  return { files, names: plan.names, bytes, measuredAt: Math.min(MEASURED, frame.size) };
}
