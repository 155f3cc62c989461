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
