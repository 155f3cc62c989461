import { Problem } from '@zesty-tile/core';

/** Whether a file is a Radiance HDR picture, by its first two bytes. */
export const isHdr = (bytes: Uint8Array): boolean => bytes[0] === 0x23 && bytes[1] === 0x3f;

const hdrDamaged = (why: string) =>
  new Problem(
    'damaged',
    `The HDR (.hdr) picture is incomplete or damaged (${why}).`,
    'Copy it again from where it came, or open it and save it again.',
  );

const HEADER_BYTES = 1 << 16;
/** Widths whose rows may be packed channel by channel. */
const PACKED_WIDTHS = { least: 8, most: 32767 };

/** Walks over a packed row: four channels of runs and literals. Returns where the next row begins. */
function skipRow(bytes: Uint8Array, start: number, width: number): number {
  let at = start + 4;
  for (let channel = 0; channel < 4; channel++) {
    for (let x = 0; x < width; ) {
      const code = bytes[at];
      const count = code > 128 ? code - 128 : code;
      if (code === undefined || count === 0 || x + count > width) throw hdrDamaged('a row is not valid');
      at += code > 128 ? 2 : 1 + count;
      x += count;
    }
  }
  return at;
}

/**
 * Size of a Radiance HDR picture, from its header, once all of its rows are known to be there.
 * @throws Problem `damaged`.
 */
export function readHdr(bytes: Uint8Array): { width: number; height: number } {
  const text = new TextDecoder('latin1').decode(bytes.subarray(0, HEADER_BYTES));
  const found = /\n[ \t]*-Y +([0-9]{1,6}) +\+X +([0-9]{1,6})[ \t]*\n/.exec(text);
  if (!found) throw hdrDamaged('its header has no size, or its rows do not run from the top left');
  const [height, width] = [Number(found[1]), Number(found[2])];
  if (width < 1 || height < 1) throw hdrDamaged('its header has no size');
  let at = found.index + found[0].length;
  const isPacked =
    width >= PACKED_WIDTHS.least &&
    width <= PACKED_WIDTHS.most &&
    bytes[at] === 2 &&
    bytes[at + 1] === 2 &&
    !(bytes[at + 2] & 0x80);
  if (!isPacked) {
    if (at + 4 * width * height > bytes.length) throw hdrDamaged('not all of its rows are there');
    return { width, height };
  }
  for (let y = 0; y < height; y++) {
    if (bytes[at] !== 2 || bytes[at + 1] !== 2 || ((bytes[at + 2] << 8) | bytes[at + 3]) !== width) {
      throw hdrDamaged('not all of its rows are there');
    }
    at = skipRow(bytes, at, width);
  }
  if (at > bytes.length) throw hdrDamaged('not all of its rows are there');
  return { width, height };
}
