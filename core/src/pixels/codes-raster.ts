import { Raster } from '../raster/raster.ts';
import type { Pixels } from './pixels.ts';

export const fullOf = (data: Pixels['data']): number =>
  data instanceof Float32Array ? 1 : data instanceof Uint16Array ? 65535 : 255;

/** Values 0..1 of a data map as its codes are, from the channel `first` on: no transfer curve. An alpha that there is none of is 1. */
export function codesRaster({ data, width, height, channels }: Pixels, planes: 1 | 3 | 4, first = 0): Raster {
  const full = fullOf(data);
  const out = Raster.filled(width, height, planes);
  for (let c = 0; c < planes; c++) {
    if (first + c >= channels) {
      out.planes[c].fill(1);
      continue;
    }
    for (let i = 0; i < width * height; i++) out.planes[c][i] = data[i * channels + first + c] / full;
  }
  return out;
}
