import { linearTable, srgbToLinear } from '../../../colour/srgb.ts';
import { KERNELS } from '../../../kernels/kernels.ts';
import { fullOf } from '../../../pixels/codes-raster.ts';
import type { Pixels } from '../../../pixels/pixels.ts';
import { straightTable } from '../linearise.ts';

/** Codes at the very top are clipped. */
const CEILING = srgbToLinear(253.5 / 255);

/** From this linear value on a channel of a shot is clipped; floats never are. */
export const ceilingOf = ({ data }: Pixels, isLinear: boolean): number =>
  data instanceof Float32Array ? Number.POSITIVE_INFINITY : isLinear ? 253.5 / 255 : CEILING;

/** Puts rows of a shot, from the one on that is named, into linear planes. `isLinear` where its codes are no sRGB. */
export function linearRows(shot: Pixels, from: number, isLinear: boolean, planes: Float32Array[]): void {
  const { data, width, channels } = shot;
  const part = data.subarray(from * width * channels, from * width * channels + planes[0].length * channels);
  if (!(part instanceof Float32Array)) {
    const full = fullOf(data);
    const curve = isLinear ? straightTable(full) : linearTable(full === 65535 ? 16 : 8);
    KERNELS.takeCodes(part, channels, curve, planes);
    return;
  }
  for (let i = 0, at = 0; i < planes[0].length; i++, at += channels) {
    for (let c = 0; c < 3; c++) {
      const value = part[at + c];
      planes[c][i] = value > 0 ? Math.min(1e6, value) : 0;
    }
  }
}

/** A whole shot, linear, and where it is clipped. */
export function linearShot(shot: Pixels, isLinear: boolean): { planes: Float32Array[]; clipped: Uint8Array } {
  const planes = [0, 1, 2].map(() => new Float32Array(shot.width * shot.height));
  linearRows(shot, 0, isLinear, planes);
  const ceiling = ceilingOf(shot, isLinear);
  const [r, g, b] = planes;
  return {
    planes,
    clipped: Uint8Array.from(r, (value, i) =>
      value >= ceiling || g[i] >= ceiling || b[i] >= ceiling ? 1 : 0,
    ),
  };
}
