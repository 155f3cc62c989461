/** Of every byte, for the check sum of a PNG's chunk (PNG specification, annex D). */
const TABLE = Uint32Array.from({ length: 256 }, (_, n) => {
  let c = n;
  for (let k = 0; k < 8; k++) c = c & 1 ? 0xedb88320 ^ (c >>> 1) : c >>> 1;
  return c;
});

function checkSum(bytes: Uint8Array): number {
  let c = 0xffffffff;
  for (const byte of bytes) c = TABLE[(c ^ byte) & 255] ^ (c >>> 8);
  return (c ^ 0xffffffff) >>> 0;
}

/** Signature and header, after which a text may stand. */
const HEADER = 8 + 25;

/** A PNG with a text in it under a keyword of the specification, as international text that is not compressed. */
export function withText(png: Uint8Array, keyword: string, text: string): Uint8Array<ArrayBuffer> {
  const encoder = new TextEncoder();
  // Keyword, then flags of compression, and no language and no translation of the keyword.
  const body = encoder.encode(`iTXt${keyword}\0\0\0\0\0${text}`);
  const out = new Uint8Array(png.length + body.length + 8);
  const view = new DataView(out.buffer);
  out.set(png.subarray(0, HEADER));
  view.setUint32(HEADER, body.length - 4);
  out.set(body, HEADER + 4);
  view.setUint32(HEADER + 4 + body.length, checkSum(body));
  out.set(png.subarray(HEADER), HEADER + 8 + body.length);
  return out;
}
