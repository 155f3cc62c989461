import { Raster } from '../raster/raster.ts';

/** How a game looks at a tile far away: one texel, mips, or up to eight looks along the longer side of what a pixel covers. */
export const FAR_FILTERS = ['none', 'mips', 'eight'] as const;
export type FarFilter = (typeof FAR_FILTERS)[number];

/** From where a field of repeats is seen. */
export interface FarLook {
  /** Pixels of the view. */
  width: number;
  height: number;
  /** Straight down on so many repeats across, or along the ground from an eye so many tile edges high. */
  from: { above: number } | { eye: number; downDegrees: number };
  /** How far the viewer has moved, in tile edges: to the right, and ahead. */
  moved: [number, number];
  filter: FarFilter;
}

const FIELD_OF_VIEW = (50 * Math.PI) / 180;
const MOST_LOOKS = 8;

/** Place on the ground under a pixel, in tile edges; false above the horizon. */
function groundOf({
  width,
  height,
  from,
  moved,
}: FarLook): (x: number, y: number, out: Float64Array) => boolean {
  if ('above' in from) {
    const per = from.above / width;
    return (x, y, out) => {
      out[0] = moved[0] + (x - width / 2) * per;
      out[1] = -moved[1] + (y - height / 2) * per;
      return true;
    };
  }
  const reach = Math.tan(FIELD_OF_VIEW / 2) / (height / 2);
  const down = (from.downDegrees * Math.PI) / 180;
  const [c, s] = [Math.cos(down), Math.sin(down)];
  return (x, y, out) => {
    const right = (x - width / 2) * reach;
    const up = (height / 2 - y) * reach;
    const falls = s - up * c;
    if (falls <= 1e-6) return false;
    const t = from.eye / falls;
    out[0] = moved[0] + right * t;
    out[1] = -moved[1] - (c + up * s) * t;
    return true;
  };
}

/** Adds a bilinear look at one level, on the torus. `u`, `v` in tiles. */
function look(
  { width, height, planes }: Raster,
  u: number,
  v: number,
  share: number,
  sum: Float64Array,
): void {
  const x = (u - Math.floor(u)) * width - 0.5;
  const y = (v - Math.floor(v)) * height - 0.5;
  const x0 = Math.floor(x);
  const y0 = Math.floor(y);
  const fx = x - x0;
  const fy = y - y0;
  const left = (x0 + width) % width;
  const right = (x0 + 1) % width;
  const top = ((y0 + height) % height) * width;
  const bottom = ((y0 + 1) % height) * width;
  for (let c = 0; c < planes.length; c++) {
    const plane = planes[c];
    const above = plane[top + left] + fx * (plane[top + right] - plane[top + left]);
    const below = plane[bottom + left] + fx * (plane[bottom + right] - plane[bottom + left]);
    sum[c] += share * (above + fy * (below - above));
  }
}

/** The sample of the full picture at a place given in tiles. */
function nearest({ width, height, planes }: Raster, u: number, v: number, sum: Float64Array): void {
  const column = Math.min(width - 1, Math.floor((u - Math.floor(u)) * width));
  const row = Math.min(height - 1, Math.floor((v - Math.floor(v)) * height));
  for (let c = 0; c < planes.length; c++) sum[c] = planes[c][row * width + column];
}

/** The footprint of a pixel on the ground: its middle in tiles, and its two sides in widths of a tile, `a` to the right, `b` down. */
interface Footprint {
  u: number;
  v: number;
  ax: number;
  ay: number;
  bx: number;
  by: number;
}

/** The mean along the longer side of a footprint: trilinear samples, one or as many as the filter allows. */
function alongFootprint(
  chain: readonly Raster[],
  filter: FarLook['filter'],
  { u, v, ax, ay, bx, by }: Footprint,
  sum: Float64Array,
): void {
  const [{ width: across, height: tall }] = chain;
  const aspect = tall / across;
  const a = Math.hypot(ax, ay) * across;
  const b = Math.hypot(bx, by) * across;
  const longer = Math.max(a, b, 1e-6);
  const looks =
    filter === 'eight'
      ? Math.min(MOST_LOOKS, Math.max(1, Math.ceil(longer / Math.max(1, Math.min(a, b)))))
      : 1;
  const [du, dv] = a >= b ? [ax, ay / aspect] : [bx, by / aspect];
  const level = Math.min(chain.length - 1, Math.max(0, Math.log2(longer / looks)));
  const sharp = Math.floor(level);
  const mix = level - sharp;
  for (let k = 0; k < looks; k++) {
    const t = (k + 0.5) / looks - 0.5;
    look(chain[sharp], u + t * du, v + t * dv, (1 - mix) / looks, sum);
    if (mix > 0) look(chain[sharp + 1], u + t * du, v + t * dv, mix / looks, sum);
  }
}

/**
 * A field of repeats of a tile (its `mipChain`) as a renderer draws it from far away: trilinear between mips, or with looks
 * along the longer axis of a pixel's footprint (Heckbert 1989; McCormack et al. 1999), or without any, so that shimmer
 * is seen. The last plane of what comes back is 1 on the ground and 0 above the horizon.
 */
export function farField(chain: readonly Raster[], view: FarLook): Raster {
  const [{ width: across, height: tall, channels }] = chain;
  const aspect = tall / across;
  const out = Raster.filled(view.width, view.height, channels + 1);
  const ground = groundOf(view);
  const here = new Float64Array(2);
  const beside = new Float64Array(2);
  const below = new Float64Array(2);
  const sum = new Float64Array(channels);
  const footprint: Footprint = { u: 0, v: 0, ax: 1, ay: 1, bx: 1, by: 1 };
  for (let y = 0; y < view.height; y++) {
    for (let x = 0; x < view.width; x++) {
      if (!ground(x + 0.5, y + 0.5, here)) continue;
      const i = y * view.width + x;
      const u = here[0];
      const v = here[1] / aspect;
      sum.fill(0);
      if (view.filter === 'none') nearest(chain[0], u, v, sum);
      else {
        const isWhole = ground(x + 1.5, y + 0.5, beside) && ground(x + 0.5, y + 1.5, below);
        if (isWhole) {
          footprint.ax = beside[0] - here[0];
          footprint.ay = beside[1] - here[1];
          footprint.bx = below[0] - here[0];
          footprint.by = below[1] - here[1];
        } else footprint.ax = footprint.ay = footprint.bx = footprint.by = 1;
        footprint.u = u;
        footprint.v = v;
        alongFootprint(chain, view.filter, footprint, sum);
      }
      for (let c = 0; c < channels; c++) out.planes[c][i] = sum[c];
      out.planes[channels][i] = 1;
    }
  }
  return out;
}
