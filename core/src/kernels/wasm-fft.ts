import type { Kernels } from './kernels.ts';
import type { Call } from './wasm.ts';

/** Lines that are transformed together. */
const LINES = 8;
const DOUBLE = 8;

interface Tables {
  /** cos and −sin of k turns in n. */
  turns: Float64Array;
  /** Each place with its bits reversed. */
  places: Int32Array;
}

const known = new Map<number, Tables>();

function tablesFor(n: number): Tables {
  const found = known.get(n);
  if (found) return found;
  const turns = new Float64Array(2 * n);
  const places = new Int32Array(n);
  for (let k = 0; k < n; k++) {
    turns[2 * k] = Math.cos((2 * Math.PI * k) / n);
    turns[2 * k + 1] = -Math.sin((2 * Math.PI * k) / n);
    places[k] = (places[k >> 1] >> 1) | (k & 1 ? n >> 1 : 0);
  }
  const made = { turns, places };
  known.set(n, made);
  return made;
}

export const wasmFourier =
  (call: Call, reference: Kernels): Kernels['fourier'] =>
  (spectrum) => {
    const { width, height, re, im } = spectrum;
    if (width < LINES || height < LINES) return reference.fourier(spectrum);
    const [x, y] = [tablesFor(width), tablesFor(height)];
    return call((exports, arena) => {
      const scratch = 2 * DOUBLE * LINES * Math.max(width, height);
      arena.begin(2 * re.byteLength + 20 * (width + height) + scratch + 256);
      const put = (values: Float64Array) => {
        const at = arena.room(values.byteLength);
        arena.doubles(at, values);
        return at;
      };
      const [atRe, atIm] = [put(re), put(im)];
      exports.fft2(
        atRe,
        atIm,
        width,
        height,
        put(x.turns),
        arena.integers(x.places),
        put(y.turns),
        arena.integers(y.places),
        arena.room(scratch),
      );
      const out = (at: number) => arena.doublesAt(at, re.length);
      return { width, height, re: out(atRe), im: out(atIm) };
    });
  };
