/** Rows that are turned side by side: as many lines of the cache are read to their end. */
const TOGETHER: i32 = 8;

/** Four rows by four columns. */
function turnFour(at: usize, stride: usize, to: usize, apart: usize): void {
  const a = v128.load(at);
  const b = v128.load(at + stride);
  const c = v128.load(at + 2 * stride);
  const d = v128.load(at + 3 * stride);
  const ab = v128.shuffle<i32>(a, b, 0, 4, 1, 5);
  const cd = v128.shuffle<i32>(c, d, 0, 4, 1, 5);
  const abHigh = v128.shuffle<i32>(a, b, 2, 6, 3, 7);
  const cdHigh = v128.shuffle<i32>(c, d, 2, 6, 3, 7);
  v128.store(to, v128.shuffle<i64>(ab, cd, 0, 2));
  v128.store(to + apart, v128.shuffle<i64>(ab, cd, 1, 3));
  v128.store(to + 2 * apart, v128.shuffle<i64>(abHigh, cdHigh, 0, 2));
  v128.store(to + 3 * apart, v128.shuffle<i64>(abHigh, cdHigh, 1, 3));
}

/** A block of `rows` rows of `width` values inverted its diagonal, into `width` rows of `rows`; both are multiples of four. */
export function transposeBlock(from: usize, out: usize, width: i32, rows: i32): void {
  const stride = (<usize>width) << 2;
  const apart = (<usize>rows) << 2;
  for (let top = 0; top < rows; top += TOGETHER) {
    const end = min(rows, top + TOGETHER);
    for (let x = 0; x < width; x += 4) {
      for (let y = top; y < end; y += 4) {
        const at = from + <usize>y * stride + ((<usize>x) << 2);
        turnFour(at, stride, out + <usize>x * apart + ((<usize>y) << 2), apart);
      }
    }
  }
}
