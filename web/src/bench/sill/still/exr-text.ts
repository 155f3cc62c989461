/** Magic number and version, after which the header's attributes stand (OpenEXR file layout). */
const START = 8;
/** Offsets of the blocks of lines are eight bytes each. */
const OFFSET = 8;

/** Where the header ends: behind the empty name that closes it. */
function headerEnd(bytes: Uint8Array): number {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let at = START;
  while (bytes[at] !== 0) {
    // Name and type, each closed by a zero, and the length of the value.
    for (let k = 0; k < 2; k++) at = bytes.indexOf(0, at) + 1;
    at += 4 + view.getUint32(at, true);
  }
  return at + 1;
}

/** An OpenEXR picture of one part in lines, with a text in its header as an attribute of this name. */
export function withExrText(exr: Uint8Array, name: string, text: string): Uint8Array<ArrayBuffer> {
  const encoder = new TextEncoder();
  const value = encoder.encode(text);
  const attribute = new Uint8Array([...encoder.encode(`${name}\0string\0`), 0, 0, 0, 0, ...value]);
  new DataView(attribute.buffer).setUint32(attribute.length - value.length - 4, value.length, true);
  const end = headerEnd(exr);
  const out = new Uint8Array(exr.length + attribute.length);
  out.set(exr.subarray(0, end - 1));
  out.set(attribute, end - 1);
  out.set(exr.subarray(end - 1), end - 1 + attribute.length);
  const view = new DataView(out.buffer);
  // Every block has moved on; the first of them begins where the table of their offsets ends.
  const table = end + attribute.length;
  const first = Number(view.getBigUint64(table, true)) + attribute.length;
  for (let at = table; at < first; at += OFFSET)
    view.setBigUint64(at, view.getBigUint64(at, true) + BigInt(attribute.length), true);
  return out;
}
