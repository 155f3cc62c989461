import { vectors } from '../host/blocks.ts';
import type { Call, WasmHost } from '../host/wasm.ts';
import { type paintStrokes, type reference, STROKE_VALUES } from './reference.ts';

/** Bytes of a piece of a spine in the kernel's table, and of the places of four marks. */
const PIECE = 24;
const MARKS = 48;

/** Points of the longest spine. */
function longest(values: Float64Array): number {
  let count = 0;
  for (let n = 1; n < values.length; n += STROKE_VALUES) count = Math.max(count, values[n]);
  return count;
}

const wasmPaintStrokes =
  (call: Call): typeof paintStrokes =>
  (block, { values, points }, prints, { width, height }, edges) =>
    call((exports, arena) => {
      const { canvas, guide, left, top, right, bottom } = block;
      const pieces = PIECE * longest(values);
      const spans = 8 * (bottom - top);
      // Rows of a box are whole vectors.
      const room = vectors((right - left + 4) * (bottom - top));
      const lists = values.byteLength + points.byteLength + prints.values.byteLength;
      arena.begin(2 * canvas.byteLength + lists + 3 * room + pieces + MARKS + spans + 256);
      const [at, like, marks] = [arena.floats(canvas), arena.floats(guide), arena.floats(prints.values)];
      // The last sample of the last print is read together with the next.
      arena.room(16);
      const [strokes, spines] = [values, points].map((list) => {
        const place = arena.room(list.byteLength);
        arena.doubles(place, list);
        return place;
      });
      const wraps = (edges.x === 'wrap' ? 1 : 0) | (edges.y === 'wrap' ? 2 : 0);
      exports.paintStrokes(
        ...[at, like, marks, prints.count, strokes, values.length / STROKE_VALUES, spines],
        ...[width, height, left, top, right, bottom, wraps, arena.room(3 * room), room],
        ...[pieces, MARKS, spans].map((bytes) => arena.room(bytes)),
      );
      canvas.set(arena.view(at, canvas.length));
    });

export const wasm = ({ call }: WasmHost): typeof reference => ({ paintStrokes: wasmPaintStrokes(call) });
