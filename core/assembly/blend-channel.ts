import { atrousSmooth } from './atrous';

/**
 * One channel of a strip blended band by band. `out` begins as the copy `b`, `apart` as `a` less `b`; both are planes of
 * `width` × `height`, as are the two that are worked in. `masks` holds a plane for each level and one for what remains,
 * `columns` and `rows` the edge tables of each level, one behind the other.
 */
export function blendChannel(
  out: usize,
  apart: usize,
  smoother: usize,
  middle: usize,
  width: i32,
  height: i32,
  levels: i32,
  masks: usize,
  columns: usize,
  rows: usize,
  line: usize,
): void {
  const bytes = ((<usize>width) << 2) * <usize>height;
  let mask = masks;
  let from = apart;
  let to = smoother;
  for (let level = 0; level < levels; level++) {
    const hole = 1 << level;
    memory.copy(to, from, bytes);
    atrousSmooth(to, middle, width, height, hole, columns, rows, line);
    for (let at: usize = 0; at < bytes; at += 16) {
      const band = f32x4.sub(v128.load(from + at), v128.load(to + at));
      v128.store(out + at, f32x4.add(v128.load(out + at), f32x4.mul(band, v128.load(mask + at))));
    }
    const was = from;
    from = to;
    to = was;
    mask += (bytes + 15) & ~15;
    columns += (<usize>(width + 4 * hole)) << 2;
    rows += (<usize>(height + 4 * hole)) << 2;
  }
  for (let at: usize = 0; at < bytes; at += 16) {
    v128.store(
      out + at,
      f32x4.add(v128.load(out + at), f32x4.mul(v128.load(from + at), v128.load(mask + at))),
    );
  }
}
