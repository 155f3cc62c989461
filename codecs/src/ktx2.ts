import { type CrateFile, isEncoded, mipSides, type Samples } from '@zesty-tile/core';
import {
  createDefaultContainer,
  KHR_DF_CHANNEL_RGBSDA_ALPHA,
  KHR_DF_MODEL_RGBSDA,
  KHR_DF_PRIMARIES_BT709,
  KHR_DF_SAMPLE_DATATYPE_LINEAR,
  KHR_DF_TRANSFER_LINEAR,
  KHR_DF_TRANSFER_SRGB,
  KHR_SUPERCOMPRESSION_NONE,
  type KTX2Container,
  read,
  VK_FORMAT_R8_SRGB,
  VK_FORMAT_R8_UNORM,
  VK_FORMAT_R8G8B8_SRGB,
  VK_FORMAT_R8G8B8_UNORM,
  VK_FORMAT_R8G8B8A8_SRGB,
  VK_FORMAT_R8G8B8A8_UNORM,
  VK_FORMAT_R16_UNORM,
  VK_FORMAT_R16G16B16_UNORM,
  VK_FORMAT_R16G16B16A16_UNORM,
  type VKFormat,
  write,
} from 'ktx-parse';

type Kind = 'srgb' | 'unorm8' | 'unorm16';

const FORMATS: Record<Kind, Partial<Record<number, VKFormat>>> = {
  srgb: { 1: VK_FORMAT_R8_SRGB, 3: VK_FORMAT_R8G8B8_SRGB, 4: VK_FORMAT_R8G8B8A8_SRGB },
  unorm8: { 1: VK_FORMAT_R8_UNORM, 3: VK_FORMAT_R8G8B8_UNORM, 4: VK_FORMAT_R8G8B8A8_UNORM },
  unorm16: { 1: VK_FORMAT_R16_UNORM, 3: VK_FORMAT_R16G16B16_UNORM, 4: VK_FORMAT_R16G16B16A16_UNORM },
};

const kindOf = (file: CrateFile): Kind =>
  isEncoded(file) ? 'srgb' : file.bits === 16 ? 'unorm16' : 'unorm8';

/** Levels of a whole chain, from the file's own size down to one pixel. */
export const mipCount = ({ width, height }: Pick<CrateFile, 'width' | 'height'>): number =>
  Math.floor(Math.log2(Math.max(width, height))) + 1;

const bytesOf = (samples: Samples): Uint8Array<ArrayBuffer> =>
  new Uint8Array(samples.buffer as ArrayBuffer, samples.byteOffset, samples.byteLength);

/**
 * A crate file as KTX 2.0, uncompressed, with its whole chain of mips, each made from the maps at its size: normals unit,
 * roughness with what they lose, opacity with its coverage.
 */
export function encodeKtx2File(file: CrateFile, samples: Samples): Uint8Array {
  const { width, height, channels, bits } = file;
  const kind = kindOf(file);
  const container: KTX2Container = createDefaultContainer();
  container.vkFormat = FORMATS[kind][channels]!;
  container.typeSize = bits / 8;
  container.pixelWidth = width;
  container.pixelHeight = height;
  container.levelCount = mipCount(file);
  container.supercompressionScheme = KHR_SUPERCOMPRESSION_NONE;
  container.levels = Array.from({ length: container.levelCount }, (_, mip) => {
    const levelData = bytesOf(mip === 0 ? samples : file.samples(mip));
    return { levelData, uncompressedByteLength: levelData.byteLength };
  });
  const [descriptor] = container.dataFormatDescriptor;
  descriptor.colorModel = KHR_DF_MODEL_RGBSDA;
  descriptor.colorPrimaries = KHR_DF_PRIMARIES_BT709;
  descriptor.transferFunction = kind === 'srgb' ? KHR_DF_TRANSFER_SRGB : KHR_DF_TRANSFER_LINEAR;
  descriptor.texelBlockDimension = [0, 0, 0, 0];
  descriptor.bytesPlane = [(channels * bits) / 8, 0, 0, 0, 0, 0, 0, 0];
  descriptor.samples = Array.from({ length: channels }, (_, c) => ({
    bitOffset: c * bits,
    bitLength: bits - 1,
    // Alpha is never sRGB encoded.
    channelType:
      c < 3 ? c : KHR_DF_CHANNEL_RGBSDA_ALPHA | (kind === 'srgb' ? KHR_DF_SAMPLE_DATATYPE_LINEAR : 0),
    samplePosition: [0, 0, 0, 0],
    sampleLower: 0,
    sampleUpper: 2 ** bits - 1,
  }));
  container.keyValue = { KTXorientation: 'rd', KTXwriter: 'Zesty Tile' };
  return write(container);
}

/** The samples of all levels of a KTX 2.0 file, the largest first; null where it is of another shape than was meant. */
export function decodeKtx2File(file: CrateFile, bytes: Uint8Array): Samples[] | null {
  const { vkFormat, pixelWidth, pixelHeight, levels } = read(bytes);
  if (vkFormat !== FORMATS[kindOf(file)][file.channels] || levels.length !== mipCount(file)) return null;
  if (pixelWidth !== file.width || pixelHeight !== file.height) return null;
  const sized = levels.map(({ levelData }, mip) => {
    const { width, height } = mipSides(file, mip);
    if (levelData.byteLength !== (width * height * file.channels * file.bits) / 8) return null;
    return file.bits === 16 ? new Uint16Array(levelData.slice().buffer) : levelData;
  });
  return sized.includes(null) ? null : (sized as Samples[]);
}
