import type { Arena } from '../host/arena.ts';
import type { Exports, WasmHost } from '../host/wasm.ts';
import { fourier, type reference } from './reference.ts';

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

/** An instance whose memory is one transform's own, however often it pauses. */
type Instance = { exports: Exports; arena: Arena };

/** Lines between two pauses: some milliseconds of them. */
const linesOf = (length: number) => Math.max(LINES, 2 ** 16 / length);

const wasmFourier = (instance: () => Instance): typeof fourier => {
  let kept: Instance | null = null;
  return function* (spectrum) {
    const { width, height, re, im } = spectrum;
    if (width < LINES || height < LINES) return yield* fourier(spectrum);
    const [x, y] = [tablesFor(width), tablesFor(height)];
    const own = kept ?? instance();
    kept = null;
    const { exports, arena } = own;
    try {
      const scratch = 2 * DOUBLE * LINES * Math.max(width, height);
      arena.begin(2 * re.byteLength + 20 * (width + height) + scratch + 256);
      const put = (values: Float64Array) => {
        const at = arena.room(values.byteLength);
        arena.doubles(at, values);
        return at;
      };
      const [atRe, atIm] = [put(re), put(im)];
      const [turnsX, placesX] = [put(x.turns), arena.integers(x.places)];
      const [turnsY, placesY] = [put(y.turns), arena.integers(y.places)];
      const lines = arena.room(scratch);
      for (let from = 0; from < height; from += linesOf(width)) {
        yield;
        const to = Math.min(height, from + linesOf(width));
        exports.fftRows(atRe, atIm, width, from, to, turnsX, placesX, lines);
      }
      for (let from = 0; from < width; from += linesOf(height)) {
        yield;
        const to = Math.min(width, from + linesOf(height));
        exports.fftColumns(atRe, atIm, width, height, from, to, turnsY, placesY, lines);
      }
      yield;
      const out = (at: number) => arena.doublesAt(at, re.length);
      return { width, height, re: out(atRe), im: out(atIm) };
    } finally {
      // Memory of WASM never shrinks: what a large plane took goes with its instance.
      if (!arena.isLarge) kept = own;
    }
  };
};

export const wasm = ({ instance }: WasmHost): typeof reference => ({
  fourier: wasmFourier(instance),
});
