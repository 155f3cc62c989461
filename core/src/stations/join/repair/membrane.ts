interface Level {
  width: number;
  height: number;
  /** 1 unknown, 2 given beside the unknown, 0 neither. */
  kind: Uint8Array;
  value: Float32Array;
}

const UNKNOWN = 1;
const GIVEN = 2;
const SWEEPS = 14;
/** Over-relaxation (Young 1954). */
const PUSH = 1.5;
const COARSEST_SWEEPS = 60;

/** Half the size: a cell is given where any pixel in it is, by their mean; else unknown where any is. */
function coarser({ width, height, kind, value }: Level): Level {
  const [w, h] = [(width + 1) >> 1, (height + 1) >> 1];
  const sums = new Float32Array(w * h);
  const counts = new Uint8Array(w * h);
  const next = new Uint8Array(w * h);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const k = (y >> 1) * w + (x >> 1);
      if (kind[i] === GIVEN) {
        sums[k] += value[i];
        counts[k]++;
        next[k] = GIVEN;
      } else if (kind[i] === UNKNOWN && next[k] === 0) next[k] = UNKNOWN;
    }
  }
  for (let k = 0; k < sums.length; k++) if (counts[k] > 0) sums[k] /= counts[k];
  return { width: w, height: h, kind: next, value: sums };
}

/** Starts the unknown pixels of `fine` from the coarse answer, bilinearly over cells that hold any. */
function start(fine: Level, coarse: Level): void {
  const { width, height, kind, value } = fine;
  for (let y = 0; y < height; y++) {
    const near = y >> 1;
    const far = Math.min(coarse.height - 1, Math.max(0, near + (y & 1 ? 1 : -1)));
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      if (kind[i] !== UNKNOWN) continue;
      const p = x >> 1;
      const q = Math.min(coarse.width - 1, Math.max(0, p + (x & 1 ? 1 : -1)));
      let sum = 0;
      let weight = 0;
      for (const [column, row, share] of [
        [p, near, 9],
        [q, near, 3],
        [p, far, 3],
        [q, far, 1],
      ] as const) {
        const k = row * coarse.width + column;
        if (coarse.kind[k] === 0) continue;
        sum += share * coarse.value[k];
        weight += share;
      }
      value[i] = sum / weight;
    }
  }
}

function sweep({ width, height, kind, value }: Level, colour: 0 | 1): void {
  for (let y = 0; y < height; y++) {
    for (let x = (y + colour) & 1; x < width; x += 2) {
      const i = y * width + x;
      if (kind[i] !== UNKNOWN) continue;
      let sum = 0;
      let n = 0;
      if (x > 0) {
        sum += value[i - 1];
        n++;
      }
      if (x + 1 < width) {
        sum += value[i + 1];
        n++;
      }
      if (y > 0) {
        sum += value[i - width];
        n++;
      }
      if (y + 1 < height) {
        sum += value[i + width];
        n++;
      }
      value[i] += PUSH * (sum / n - value[i]);
    }
  }
}

/**
 * A membrane stretched over the pixels where `inside` is not 0, fixed to `values` on the pixels around them
 * (Laplace's equation; over an edge of the plane nothing flows). Returns `values` with the inside filled; where
 * nothing around is given, with zeros. From coarse to fine, each level started from the one before (cascadic
 * multigrid, Bornemann & Deuflhard 1996).
 */
export function membrane(
  values: Float32Array,
  inside: Uint8Array,
  width: number,
  height: number,
): Float32Array {
  const kind = new Uint8Array(values.length);
  const filled = values.slice();
  let given = 0;
  let unknown = 0;
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      if (inside[i]) {
        kind[i] = UNKNOWN;
        filled[i] = 0;
        unknown++;
        continue;
      }
      const beside =
        (x > 0 && inside[i - 1]) ||
        (x + 1 < width && inside[i + 1]) ||
        (y > 0 && inside[i - width]) ||
        (y + 1 < height && inside[i + width]);
      if (!beside) continue;
      kind[i] = GIVEN;
      given++;
    }
  }
  if (given === 0 || unknown === 0) return filled;
  const levels: Level[] = [{ width, height, kind, value: filled }];
  while (levels[levels.length - 1].kind.includes(UNKNOWN)) {
    const last = levels[levels.length - 1];
    if (last.width === 1 && last.height === 1) break;
    levels.push(coarser(last));
  }
  for (let k = levels.length - 1; k >= 0; k--) {
    if (k + 1 < levels.length) start(levels[k], levels[k + 1]);
    for (let n = 0; n < (k > levels.length - 4 ? COARSEST_SWEEPS : SWEEPS); n++) {
      sweep(levels[k], 0);
      sweep(levels[k], 1);
    }
  }
  return filled;
}
