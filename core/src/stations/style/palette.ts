import { inParts, type Steps } from '../../work/steps.ts';

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
  const held = (value: number, most: number) => Math.min(most - 1, Math.max(0, Math.round(value)));
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

/** Steps of the table on each axis, and how far it reaches beyond the palette. */
const STEPS = 32;
const MARGIN = 0.06;
/** Values of the table from one row, and from one layer, to the next. */
const DOWN = 3 * (STEPS + 1);
const FAR = DOWN * (STEPS + 1);

/** How far colours are drawn, at the corners of a lattice about a palette: to read between them is many times as quick. */
class DrawTable {
  readonly #low: Lab;
  readonly #scale: Lab;
  readonly #shifts = new Float32Array(3 * (STEPS + 1) ** 3);
  readonly #palette: readonly Lab[];
  readonly #share: number;

  constructor(palette: readonly Lab[], share: number) {
    this.#palette = palette;
    this.#share = share;
    const ends = (c: number) => palette.map((colour) => colour[c]);
    const axes = [0, 1, 2];
    this.#low = axes.map((c) => Math.min(...ends(c)) - MARGIN) as Lab;
    this.#scale = axes.map((c) => STEPS / (Math.max(...ends(c)) + MARGIN - this.#low[c])) as Lab;
    const lab: Lab = [0, 0, 0];
    const to: Lab = [0, 0, 0];
    for (let k = 0; k < this.#shifts.length / 3; k++) {
      const places = [
        Math.floor(k / (STEPS + 1) ** 2),
        Math.floor(k / (STEPS + 1)) % (STEPS + 1),
        k % (STEPS + 1),
      ];
      for (let c = 0; c < 3; c++) lab[c] = this.#low[c] + places[c] / this.#scale[c];
      drawnTo(palette, share, lab, to);
      for (let c = 0; c < 3; c++) this.#shifts[3 * k + c] = to[c] - lab[c];
    }
  }

  /** Draws the colours of three planes where they stand, from one pixel to another. */
  draw([L, a, b]: readonly Float32Array[], from: number, to: number): void {
    const s = this.#shifts;
    const [low, scale] = [this.#low, this.#scale];
    const lab: Lab = [0, 0, 0];
    for (let i = from; i < to; i++) {
      const x = (L[i] - low[0]) * scale[0];
      const y = (a[i] - low[1]) * scale[1];
      const z = (b[i] - low[2]) * scale[2];
      if (!(x >= 0 && y >= 0 && z >= 0 && x < STEPS && y < STEPS && z < STEPS)) {
        lab[0] = L[i];
        lab[1] = a[i];
        lab[2] = b[i];
        drawnTo(this.#palette, this.#share, lab, lab);
        L[i] = lab[0];
        a[i] = lab[1];
        b[i] = lab[2];
        continue;
      }
      const px = x | 0;
      const py = y | 0;
      const pz = z | 0;
      const u = x - px;
      const v = y - py;
      const w = z - pz;
      const at = px * FAR + py * DOWN + pz * 3;
      for (let c = 0; c < 3; c++) {
        const k = at + c;
        const p = s[k] + w * (s[k + 3] - s[k]);
        const q = s[k + DOWN] + w * (s[k + DOWN + 3] - s[k + DOWN]);
        const near = p + v * (q - p);
        const m = k + FAR;
        const r = s[m] + w * (s[m + 3] - s[m]);
        const t = s[m + DOWN] + w * (s[m + DOWN + 3] - s[m + DOWN]);
        const shift = near + u * (r + v * (t - r) - near);
        if (c === 0) L[i] += shift;
        else if (c === 1) a[i] += shift;
        else b[i] += shift;
      }
    }
  }
}

/** Planes of OKLab with each colour drawn softly to a palette, by a share of the way. New planes. */
export function* drawingTo(
  planes: readonly Float32Array[],
  palette: readonly Lab[],
  share: number,
): Steps<Float32Array[]> {
  const out = planes.slice(0, 3).map((plane) => plane.slice());
  if (share === 0) return out;
  const table = new DrawTable(palette, share);
  yield* inParts(out[0].length, (from, to) => table.draw(out, from, to));
  return out;
}

/** How many colours the dial asks for. */
export const paletteCount = (colours: number): number => Math.round(17 - 11 * colours);
