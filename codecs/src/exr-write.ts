import { Float16Array } from '@petamoriken/float16';
import type { CrateFile, Samples } from '@zesty-tile/core';

/**
 * A crate file as OpenEXR, linear halves or floats, ZIP compressed: always red, green, blue and alpha; what it does not have is
 * grey, and alpha 1.
 */
export async function encodeExrFile(
  { width, height, channels, bits }: CrateFile,
  samples: Samples,
): Promise<Uint8Array> {
  // The writer is large and seldom needed.
  const { DataTexture, FloatType, HalfFloatType } = await import('three');
  const { EXRExporter, ZIP_COMPRESSION } = await import('three/examples/jsm/exporters/EXRExporter.js');
  const values = bits === 32 ? new Float32Array(4 * width * height) : new Float16Array(4 * width * height);
  for (let y = 0; y < height; y++) {
    // It takes rows from the bottom.
    const row = (height - 1 - y) * width;
    for (let x = 0; x < width; x++) {
      const from = (y * width + x) * channels;
      const to = 4 * (row + x);
      for (let c = 0; c < 3; c++) values[to + c] = samples[from + Math.min(c, channels - 1)];
      values[to + 3] = channels === 4 ? samples[from + 3] : 1;
    }
  }
  const isFloat = values instanceof Float32Array;
  const data = isFloat ? values : new Uint16Array(values.buffer as ArrayBuffer);
  const texture = new DataTexture(data, width, height);
  texture.type = isFloat ? FloatType : HalfFloatType;
  const type = texture.type as typeof FloatType;
  return new EXRExporter().parse(texture, { type, compression: ZIP_COMPRESSION });
}
