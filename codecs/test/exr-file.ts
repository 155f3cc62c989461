/** An uncompressed OpenEXR file of 32-bit floats, written by the format's own description: rows from the top. */
export function exrFile(
  width: number,
  height: number,
  channels: Record<string, (x: number, y: number) => number>,
): Buffer {
  const names = Object.keys(channels).sort();
  const word = (text: string) => Buffer.from(`${text}\0`, 'latin1');
  const ints = (...values: number[]) => {
    const out = Buffer.alloc(4 * values.length);
    values.forEach((value, k) => {
      out.writeInt32LE(value, 4 * k);
    });
    return out;
  };
  const floats = (...values: number[]) => {
    const out = Buffer.alloc(4 * values.length);
    values.forEach((value, k) => {
      out.writeFloatLE(value, 4 * k);
    });
    return out;
  };
  const attribute = (name: string, type: string, value: Buffer) =>
    Buffer.concat([word(name), word(type), ints(value.length), value]);
  const list = Buffer.concat([
    // Pixel type 2 is a 32-bit float; then linearity, and sampling of 1 on both axes.
    ...names.map((name) => Buffer.concat([word(name), ints(2), Buffer.alloc(4), ints(1, 1)])),
    Buffer.alloc(1),
  ]);
  const box = ints(0, 0, width - 1, height - 1);
  const header = Buffer.concat([
    Buffer.from([0x76, 0x2f, 0x31, 0x01, 2, 0, 0, 0]),
    attribute('channels', 'chlist', list),
    attribute('compression', 'compression', Buffer.from([0])),
    attribute('dataWindow', 'box2i', box),
    attribute('displayWindow', 'box2i', box),
    attribute('lineOrder', 'lineOrder', Buffer.from([0])),
    attribute('pixelAspectRatio', 'float', floats(1)),
    attribute('screenWindowCenter', 'v2f', floats(0, 0)),
    attribute('screenWindowWidth', 'float', floats(1)),
    Buffer.alloc(1),
  ]);
  const row = 8 + 4 * width * names.length;
  const table = Buffer.alloc(8 * height);
  const rows: Buffer[] = [];
  for (let y = 0; y < height; y++) {
    table.writeBigUInt64LE(BigInt(header.length + table.length + y * row), 8 * y);
    const values = names.flatMap((name) => Array.from({ length: width }, (_, x) => channels[name](x, y)));
    rows.push(Buffer.concat([ints(y, row - 8), floats(...values)]));
  }
  return Buffer.concat([header, table, ...rows]);
}
