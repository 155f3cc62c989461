/** `count` pixels of 8-bit codes, `channels` a pixel, by a table: the first three channels, each to a plane of `out`. */
export function takeCodes8(codes: usize, count: i32, channels: i32, table: usize, out: usize): void {
  const plane: usize = (<usize>count) << 2;
  for (let to = out; to < out + plane; to += 4) {
    store<f32>(to, load<f32>(table + ((<usize>load<u8>(codes)) << 2)));
    store<f32>(to + plane, load<f32>(table + ((<usize>load<u8>(codes, 1)) << 2)));
    store<f32>(to + 2 * plane, load<f32>(table + ((<usize>load<u8>(codes, 2)) << 2)));
    codes += channels;
  }
}

/** The same of 16 bits. */
export function takeCodes16(codes: usize, count: i32, channels: i32, table: usize, out: usize): void {
  const plane: usize = (<usize>count) << 2;
  const apart: usize = (<usize>channels) << 1;
  for (let to = out; to < out + plane; to += 4) {
    store<f32>(to, load<f32>(table + ((<usize>load<u16>(codes)) << 2)));
    store<f32>(to + plane, load<f32>(table + ((<usize>load<u16>(codes, 2)) << 2)));
    store<f32>(to + 2 * plane, load<f32>(table + ((<usize>load<u16>(codes, 4)) << 2)));
    codes += apart;
  }
}
