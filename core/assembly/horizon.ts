/** Bytes of a 64-bit float and of an index. */
const D: usize = 8;
const I: usize = 4;

// @ts-expect-error: decorator
function heightAt(heights: usize, k: i32): f64 {
  return load<f64>(heights + ((<usize>k) << 3));
}

// @ts-expect-error: decorator
function indexAt(list: usize, k: i32): i32 {
  return load<i32>(list + ((<usize>k) << 2));
}

// @ts-expect-error: decorator
function putIndex(list: usize, k: i32, value: i32): void {
  store<i32>(list + ((<usize>k) << 2), value);
}

/** Upper hull of `from` … `to` − 1 pushed from its right end; what each push took away is written beside it. */
function growTail(heights: usize, from: i32, to: i32, tail: usize, sizes: usize, lost: usize): i32 {
  let size = 0;
  for (let i = to - 1; i >= from; i--) {
    const h = heightAt(heights, i);
    let m = size;
    while (m > 1) {
      const top = indexAt(tail, m - 1);
      const second = indexAt(tail, m - 2);
      if (
        (heightAt(heights, top) - h) * <f64>(second - i) >
        (heightAt(heights, second) - h) * <f64>(top - i)
      ) {
        break;
      }
      m--;
    }
    putIndex(sizes, i - from, size);
    putIndex(lost, i - from, indexAt(tail, m));
    putIndex(tail, m, i);
    size = m + 1;
  }
  return size;
}

/** The rises of one block of receivers; see the plain reference for the way of it. */
function block(
  heights: usize,
  start: i32,
  length: i32,
  reach: i32,
  rises: usize,
  silent: usize,
  hull: usize,
  tail: usize,
  sizes: usize,
  lost: usize,
): void {
  let tailSize = growTail(heights, start - reach, start, tail, sizes, lost);
  let size = 0;
  for (let j = 0; j < length; j++) {
    const k = start + j;
    const h = heightAt(heights, k);
    if (!load<u8>(silent + <usize>k)) {
      let low = 0;
      let high = tailSize - 1;
      while (low < high) {
        const m = (low + high) >> 1;
        const near = indexAt(tail, m);
        const far = indexAt(tail, m + 1);
        if (
          (heightAt(heights, far) - h) * <f64>(k - near) >=
          (heightAt(heights, near) - h) * <f64>(k - far)
        ) {
          low = m + 1;
        } else high = m;
      }
      const summit = indexAt(tail, low);
      let bestRise = heightAt(heights, summit) - h;
      let bestRun = <f64>(k - summit);
      if (size > 0) {
        const at = indexAt(hull, size - 1);
        let rise = heightAt(heights, at) - h;
        let run = <f64>(k - at);
        while (size > 1) {
          const before = indexAt(hull, size - 2);
          const rise2 = heightAt(heights, before) - h;
          const run2 = <f64>(k - before);
          if (rise2 * run < rise * run2) break;
          rise = rise2;
          run = run2;
          size--;
        }
        if (rise * bestRun > bestRise * run) {
          bestRise = rise;
          bestRun = run;
        }
      }
      store<f64>(rises + ((<usize>k) << 3), bestRise > 0 ? bestRise / bestRun : 0);
    } else {
      while (size > 1) {
        const at = indexAt(hull, size - 1);
        const before = indexAt(hull, size - 2);
        const rise = heightAt(heights, at) - h;
        const rise2 = heightAt(heights, before) - h;
        if (rise2 * <f64>(k - at) < rise * <f64>(k - before)) break;
        size--;
      }
    }
    putIndex(hull, size++, k);
    putIndex(tail, tailSize - 1, indexAt(lost, j));
    tailSize = indexAt(sizes, j);
  }
}

/**
 * Adds `share` · cos² of the horizon along one direction to `sum`, for the lines `first` … `last` − 1. `column` is where
 * each step of a line lies in its row, `shift` how many rows further; `rows` are starts of rows (elements), from row
 * `base` on; `silent` marks steps between two pixels. `room` takes what a line needs.
 */
export function sweepHorizons(
  field: usize,
  sum: usize,
  size: i32,
  reach: i32,
  column: usize,
  shift: usize,
  silent: usize,
  rows: usize,
  base: i32,
  first: i32,
  last: i32,
  within: i32,
  step: f64,
  bias: f64,
  share: f64,
  room: usize,
): void {
  const count = size + reach;
  const heights = room;
  const rises = heights + <usize>count * D;
  const hull = rises + <usize>count * D;
  const tail = hull + <usize>(reach + 1) * I;
  const sizes = tail + <usize>(reach + 1) * I;
  const lost = sizes + <usize>reach * I;
  for (let line = first; line < last; line++) {
    for (let k = 0; k < count; k++) {
      const at = line + indexAt(shift, k) - base;
      const x = indexAt(column, k);
      let h = <f64>load<f32>(field + ((<usize>(indexAt(rows, at) + x)) << 2));
      if (load<u8>(silent + <usize>k)) {
        h = (h + <f64>load<f32>(field + ((<usize>(indexAt(rows, at + 1) + x)) << 2))) / 2;
      }
      store<f64>(heights + ((<usize>k) << 3), h);
    }
    for (let start = reach; start < count; start += reach) {
      block(heights, start, min(reach, count - start), reach, rises, silent, hull, tail, sizes, lost);
    }
    for (let k = reach; k < count; k++) {
      if (load<u8>(silent + <usize>k)) continue;
      const row = line + indexAt(shift, k);
      if (within && (row < 0 || row >= size)) continue;
      const tan = max<f64>(0, load<f64>(rises + ((<usize>k) << 3)) / step - bias);
      const to = sum + ((<usize>(indexAt(rows, row - base) + indexAt(column, k))) << 2);
      store<f32>(to, <f32>(<f64>load<f32>(to) + share / (1 + tan * tan)));
    }
  }
}
