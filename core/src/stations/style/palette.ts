import type { ColourTable } from '../../kernels/draw-to/reference.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import { type Band, bandParts } from '../../raster/band.ts';
import type { Sides } from '../../raster/sides.ts';
import { statistics } from '../../statistics/statistics.ts';
import type { Sharing } from '../../team/context.ts';
import { eachBand } from '../../team/in-bands.ts';
import { task } from '../../team/task.ts';

/** A colour in OKLab. */
export type Lab = [number, number, number];

/** Steps of the histogram: in L, and in a and b, which count from −0.4 to 0.4. */
const L_STEPS = 40;
const AB_STEPS = 78;
const L_SCALE = 38.4;
const AB_SCALE = 96;
const ROUNDS = 14;
/** Lightness counts less than hue and richness. */
const distance = (p: readonly number[], L: number, a: number, b: number): number =>
  0.36 * (p[0] - L) ** 2 + 2 * ((p[1] - a) ** 2 + (p[2] - b) ** 2);

interface Bin {
  lab: Lab;
  weight: number;
}

function histogramOf([L, a, b]: readonly Float32Array[]): Bin[] {
  const counts = new Uint32Array(L_STEPS * AB_STEPS * AB_STEPS);
  // Rounded by cutting off: nothing here is below 0.
  const held = (value: number, most: number) => Math.min(most - 1, (Math.max(0, value) + 0.5) | 0);
  for (let i = 0; i < L.length; i++) {
    const x = held(L[i] * L_SCALE, L_STEPS);
    const y = held((a[i] + 0.4) * AB_SCALE, AB_STEPS);
    const z = held((b[i] + 0.4) * AB_SCALE, AB_STEPS);
    counts[(x * AB_STEPS + y) * AB_STEPS + z]++;
  }
  const bins: Bin[] = [];
  for (let k = 0; k < counts.length; k++) {
    if (counts[k] === 0) continue;
    const x = Math.floor(k / AB_STEPS ** 2);
    const y = Math.floor(k / AB_STEPS) % AB_STEPS;
    const lab: Lab = [x / L_SCALE, y / AB_SCALE - 0.4, (k % AB_STEPS) / AB_SCALE - 0.4];
    bins.push({ lab, weight: counts[k] });
  }
  return bins;
}

const meanOf = (bins: readonly Bin[]): Lab => {
  const sum = [0, 0, 0, 0];
  for (const { lab, weight } of bins) {
    for (let c = 0; c < 3; c++) sum[c] += weight * lab[c];
    sum[3] += weight;
  }
  return [sum[0] / sum[3], sum[1] / sum[3], sum[2] / sum[3]];
};

/**
 * A palette of at most `count` colours of a picture in OKLab: k-means on its histogram (Lloyd 1982), begun at the commonest colour and
 * at what lies farthest from all colours so far. Sums do not depend on the order of pixels.
 */
export function paletteOf(lab: readonly Float32Array[], count: number): Lab[] {
  const bins = histogramOf(lab);
  const most = bins.reduce((best, bin) => (bin.weight > best.weight ? bin : best));
  let centres: Lab[] = [[...most.lab]];
  const nearest = bins.map(({ lab: [L, a, b] }) => distance(centres[0], L, a, b));
  // Rare colours count for more than their pixels.
  const counted = bins.map(({ weight }) => weight ** 0.6);
  while (centres.length < Math.min(count, bins.length)) {
    let chosen = 0;
    for (let k = 1; k < bins.length; k++) {
      if (nearest[k] * counted[k] > nearest[chosen] * counted[chosen]) chosen = k;
    }
    const next: Lab = [...bins[chosen].lab];
    centres.push(next);
    for (const [
      k,
      {
        lab: [L, a, b],
      },
    ] of bins.entries()) {
      nearest[k] = Math.min(nearest[k], distance(next, L, a, b));
    }
  }
  for (let k = 0; k < ROUNDS; k++) {
    const groups: Bin[][] = centres.map(() => []);
    for (const bin of bins) {
      const [L, a, b] = bin.lab;
      let best = 0;
      for (let n = 1; n < centres.length; n++) {
        if (distance(centres[n], L, a, b) < distance(centres[best], L, a, b)) best = n;
      }
      groups[best].push(bin);
    }
    centres = centres.map((centre, n) => (groups[n].length > 0 ? meanOf(groups[n]) : centre));
  }
  return centres;
}

/** Distance at which the next colour of a palette begins to count as well. */
const SOFT = 0.03;
/** Lightness is drawn less far than hue and richness: forms are in it. */
const LIGHTNESS = 0.55;
/** The least range of colours that a table is made for. */
const LEAST_RANGE = 1e-3;

/** Draws a colour softly to a palette, by a share of the way. Written to `out`. */
export function drawnTo(palette: readonly Lab[], share: number, lab: Lab, out: Lab): void {
  const [L, a, b] = lab;
  let nearest = Number.POSITIVE_INFINITY;
  for (const colour of palette) nearest = Math.min(nearest, distance(colour, L, a, b));
  let [weights, sl, sa, sb] = [0, 0, 0, 0];
  const scale = 1 / (2 * SOFT * SOFT);
  for (const colour of palette) {
    const weight = Math.exp((nearest - distance(colour, L, a, b)) * scale);
    weights += weight;
    sl += weight * colour[0];
    sa += weight * colour[1];
    sb += weight * colour[2];
  }
  out[0] = L + (sl / weights - L) * share * LIGHTNESS;
  out[1] = a + (sa / weights - a) * share;
  out[2] = b + (sb / weights - b) * share;
}

/** Steps of the table on each axis. */
const STEPS = 24;

/** Layers of a table of how far colours are drawn to a palette, in their places. */
export const drawTableBand = task(
  'drawTableBand',
  (
    _checkpoint,
    { values, low, scale }: ColourTable,
    palette: readonly Lab[],
    share: number,
    { from, to }: Band,
  ): void => {
    const layer = (STEPS + 1) ** 2;
    const lab: Lab = [0, 0, 0];
    const drawn: Lab = [0, 0, 0];
    for (let k = from * layer; k < to * layer; k++) {
      const places = [Math.floor(k / layer), Math.floor(k / (STEPS + 1)) % (STEPS + 1), k % (STEPS + 1)];
      for (let c = 0; c < 3; c++) lab[c] = low[c] + places[c] / scale[c];
      drawnTo(palette, share, lab, drawn);
      for (let c = 0; c < 3; c++) values[4 * k + c] = drawn[c] - lab[c];
    }
  },
);

/** A table of how far the colours of a picture are drawn: to read between its places is many times as quick. */
async function tableFor(
  lab: readonly Float32Array[],
  palette: readonly Lab[],
  share: number,
  context: Sharing,
): Promise<ColourTable> {
  const ranges = lab.map((plane) => statistics(plane));
  const table = {
    values: context.team.empty(4 * (STEPS + 1) ** 3),
    steps: STEPS,
    low: ranges.map(({ min }) => min),
    scale: ranges.map(({ min, max }) => STEPS / Math.max(LEAST_RANGE, max - min)),
  };
  await eachBand(drawTableBand, [table, palette, share], STEPS + 1, context);
  return table;
}

/** Rows between two pauses. */
const ROWS = 64;

/** Colours of rows drawn softly to a palette, into pixels of four values. */
export const drawToBand = task(
  'drawToBand',
  async (
    checkpoint,
    planes: Float32Array[],
    width: number,
    table: ColourTable,
    into: Float32Array,
    band: Band,
  ): Promise<void> => {
    for (const { from, to } of bandParts(band, ROWS)) {
      const rows = planes.map((plane) => plane.subarray(from * width, to * width));
      KERNELS.drawTo(rows, table, into.subarray(4 * from * width, 4 * to * width));
      await checkpoint((to - band.from) / (band.to - band.from));
    }
  },
);

/**
 * A picture in OKLab with each colour drawn softly to a palette, by a share of the way: pixels of four values (L, a, b and 0) that
 * all of a team see.
 */
export async function drawingTo(
  planes: readonly Float32Array[],
  palette: readonly Lab[],
  share: number,
  { width, height }: Sides,
  context: Sharing,
): Promise<Float32Array> {
  const lab = planes.slice(0, 3).map((plane) => context.team.shared(plane));
  const table = await tableFor(lab, palette, share, context);
  const out = context.team.take(4 * width * height);
  await eachBand(drawToBand, [lab, width, table, out], height, context);
  return out;
}

/** How many colours the dial asks for. */
export const paletteCount = (colours: number): number => Math.round(17 - 11 * colours);
