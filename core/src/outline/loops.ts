import type { Edges } from '../raster/edges.ts';
import { PAUSE_ROWS, type Steps } from '../work/steps.ts';
import type { Loop } from './boundary.ts';

interface Field {
  width: number;
  height: number;
  edges: Edges;
}

/** Adds the area that an edge, in pixels, covers to its right to the rows that it crosses: what of it is new in each pixel. */
function addEdge(sums: Float32Array, { width, height }: Field, from: number[], to: number[]): void {
  const [down, [x0, y0], [x1, y1]] = from[1] < to[1] ? [1, from, to] : [-1, to, from];
  if (y0 === y1 || y1 <= 0 || y0 >= height) return;
  const slope = (x1 - x0) / (y1 - y0);
  const stride = width + 2;
  for (let y = Math.max(0, Math.floor(y0)); y < Math.min(height, Math.ceil(y1)); y++) {
    const [top, low] = [Math.max(y, y0), Math.min(y + 1, y1)];
    const part = down * (low - top);
    const held = (x: number) => Math.min(width, Math.max(0, x));
    const [a, b] = [held(x0 + (top - y0) * slope), held(x0 + (low - y0) * slope)];
    const [left, right] = a < b ? [a, b] : [b, a];
    const row = y * stride;
    if (right - left < 1e-6) {
      const cell = Math.min(width, Math.floor(left));
      const share = 1 - (left - cell);
      sums[row + cell] += part * share;
      sums[row + cell + 1] += part * (1 - share);
      continue;
    }
    // What lies to the right of the edge up to x, of the part of the row that it crosses.
    const area = (x: number) =>
      x <= left ? 0 : x >= right ? x - (left + right) / 2 : (x - left) ** 2 / (2 * (right - left));
    const last = Math.min(width, Math.ceil(right));
    let before = 0;
    let covered = 0;
    for (let cell = Math.floor(left); cell <= last; cell++) {
      const upTo = area(cell + 1);
      const own = upTo - before;
      sums[row + cell] += part * (own - covered);
      covered = own;
      before = upTo;
    }
  }
}

/** Whole tiles by which a span can be shifted so that it touches 0…1; on an axis that does not wrap it stays. */
function shifts(least: number, most: number, wraps: boolean): number[] {
  if (!wraps) return [0];
  const found = [];
  for (let by = -Math.floor(most); by <= -Math.floor(least); by++) found.push(by);
  return found;
}

/** The least and the largest of every second number, from a place on. */
function spanOf(loop: Loop, at: 0 | 1): [number, number] {
  let [least, most] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (let k = at; k < loop.length; k += 2) {
    least = Math.min(least, loop[k]);
    most = Math.max(most, loop[k]);
  }
  return [least, most];
}

/**
 * How much of each pixel lies within closed lines, 0..1, whose corners are shares of the field's sides: the exact area, of lines
 * that go around holes the other way than outer ones. What leaves the field comes in again on axes that wrap.
 */
export function* loopCover(loops: readonly Loop[], field: Field): Steps<Float32Array> {
  const { width, height, edges } = field;
  const stride = width + 2;
  const sums = new Float32Array(stride * height);
  for (const loop of loops) {
    for (const dx of shifts(...spanOf(loop, 0), edges.x === 'wrap')) {
      for (const dy of shifts(...spanOf(loop, 1), edges.y === 'wrap')) {
        const at = (k: number) => [(loop[k] + dx) * width, (loop[k + 1] + dy) * height];
        for (let k = 0; k < loop.length; k += 2) addEdge(sums, field, at(k), at((k + 2) % loop.length));
      }
    }
    yield;
  }
  const out = new Float32Array(width * height);
  for (let y = 0; y < height; y++) {
    let sum = 0;
    for (let x = 0; x < width; x++) {
      sum += sums[y * stride + x];
      out[y * width + x] = Math.min(1, Math.abs(sum));
    }
    if (y % PAUSE_ROWS === 0) yield;
  }
  return out;
}

/** Distance in pixels to the nearest covered pixel of each row, at most `most`. */
function alongRows(cover: Float32Array, { width, height, edges }: Field, most: number): Float32Array {
  const away = new Float32Array(cover.length);
  const rounds = edges.x === 'wrap' ? 2 : 1;
  for (let y = 0; y < height; y++) {
    const row = away.subarray(y * width, (y + 1) * width).fill(most);
    for (const step of [1, -1]) {
      let near = most;
      for (let k = 0; k < rounds * width; k++) {
        const x = step > 0 ? k % width : width - 1 - (k % width);
        near = cover[y * width + x] >= 0.5 ? 0 : Math.min(most, near + 1);
        row[x] = Math.min(row[x], near);
      }
    }
  }
  return away;
}

/** A cover 0..1 grown by a margin in pixels, around axes that wrap. */
export function* grown(cover: Float32Array, margin: number, field: Field): Steps<Float32Array> {
  if (margin <= 0) return cover;
  const { width, height, edges } = field;
  const reach = Math.ceil(margin) + 1;
  const away = alongRows(cover, field, reach + 1);
  yield;
  const out = new Float32Array(cover.length);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      let least = (reach + 1) ** 2;
      for (let dy = -reach; dy <= reach; dy++) {
        const on = edges.y === 'wrap' ? (((y + dy) % height) + height) % height : y + dy;
        if (on < 0 || on >= height) continue;
        const dx = away[on * width + x];
        least = Math.min(least, dx * dx + dy * dy);
      }
      const i = y * width + x;
      out[i] = Math.max(cover[i], Math.min(1, Math.max(0, margin + 1 - Math.sqrt(least))));
    }
    if (y % (PAUSE_ROWS / 4) === 0) yield;
  }
  return out;
}
