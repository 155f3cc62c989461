import { crc32, deflateSync } from 'node:zlib';
import sharp from 'sharp';

/** A small picture of soft colour, as a sharp pipeline. */
export function picture(width = 96, height = 64, channels: 3 | 4 = 3) {
  const data = new Uint8Array(width * height * channels);
  for (let i = 0; i < width * height; i++) {
    const x = i % width;
    const y = Math.floor(i / width);
    data[i * channels] = 60 + x;
    data[i * channels + 1] = 120;
    data[i * channels + 2] = 40 + 2 * y;
    if (channels === 4) data[i * channels + 3] = x < width / 2 ? 255 : 64;
  }
  return sharp(data, { raw: { width, height, channels } });
}

/** Bytes of a JPEG of noise: not so small that breaking it off goes unnoticed. */
export async function noisyJpeg(): Promise<Buffer> {
  return sharp({
    create: {
      width: 300,
      height: 200,
      channels: 3,
      background: '#888',
      noise: { type: 'gaussian', mean: 128, sigma: 40 },
    },
  })
    .jpeg()
    .toBuffer();
}

/** A whole PNG of one colour, 30000 × 30000 in one bit a pixel: small as a file, giant when unpacked. */
export function giantPng(): Buffer {
  const edge = 30000;
  const chunk = (type: string, data: Buffer) => {
    const body = Buffer.concat([Buffer.from(type), data]);
    const ends = Buffer.alloc(8);
    ends.writeUInt32BE(data.length, 0);
    ends.writeUInt32BE(crc32(body), 4);
    return Buffer.concat([ends.subarray(0, 4), body, ends.subarray(4)]);
  };
  const header = Buffer.alloc(13);
  header.writeUInt32BE(edge, 0);
  header.writeUInt32BE(edge, 4);
  header[8] = 1;
  const rows = deflateSync(Buffer.alloc(edge * (edge / 8 + 1)), { level: 1 });
  const signature = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
  return Buffer.concat([
    signature,
    chunk('IHDR', header),
    chunk('IDAT', rows),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

/** A Radiance HDR picture of one grey, its rows flat or packed. */
export function hdrFile(width: number, height: number, isPacked = false): Uint8Array<ArrayBuffer> {
  const pixel = [128, 128, 128, 129];
  const runs = (code: number) =>
    Array.from({ length: Math.ceil(width / 127) }, (_, k) => [
      128 + Math.min(127, width - 127 * k),
      code,
    ]).flat();
  const row = isPacked
    ? [2, 2, width >> 8, width & 255, ...pixel.flatMap(runs)]
    : Array.from({ length: width }, () => pixel).flat();
  const header = new TextEncoder().encode(`#?RADIANCE\nFORMAT=32-bit_rle_rgbe\n\n-Y ${height} +X ${width}\n`);
  return new Uint8Array([...header, ...Array.from({ length: height }, () => row).flat()]);
}
