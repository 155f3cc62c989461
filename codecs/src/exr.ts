import { type Pixels, Problem } from '@zesty-tile/core';

const MAGIC = [0x76, 0x2f, 0x31, 0x01];

/** Whether a file is an OpenEXR picture, by its first four bytes. */
export const isExr = (bytes: Uint8Array): boolean => MAGIC.every((byte, k) => bytes[k] === byte);

/** A header longer than this is none. */
const LONGEST_HEADER = 1 << 20;

const damaged = (why: string) =>
  new Problem(
    'damaged',
    `The picture breaks off or is damaged (${why}).`,
    'Copy it again from where it came, or open and save it anew.',
  );

interface ExrFacts {
  width: number;
  height: number;
  channels: string[];
  /** Bytes before the table of where its blocks lie. */
  header: number;
}

/** Size and channels of an OpenEXR picture, from the attributes of its header. @throws Problem `damaged`. */
export function exrFacts(bytes: Uint8Array): ExrFacts {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let at = 8;
  const word = (): string => {
    let text = '';
    while (at < bytes.length && bytes[at] !== 0) text += String.fromCharCode(bytes[at++]);
    at++;
    return text;
  };
  let size: { width: number; height: number } | null = null;
  const channels: string[] = [];
  try {
    while (at < Math.min(bytes.length, LONGEST_HEADER) && bytes[at] !== 0) {
      const name = word();
      word();
      const length = view.getInt32(at, true);
      at += 4;
      const next = at + length;
      if (name === 'dataWindow') {
        const [left, top, right, bottom] = [0, 4, 8, 12].map((k) => view.getInt32(at + k, true));
        size = { width: right - left + 1, height: bottom - top + 1 };
      } else if (name === 'channels') {
        while (at < next && bytes[at] !== 0) {
          channels.push(word());
          at += 16;
        }
      }
      at = next;
    }
  } catch {
    throw damaged('its header is cut off');
  }
  if (!size || size.width < 1 || size.height < 1) throw damaged('its header holds no size');
  return { ...size, channels, header: at + 1 };
}

/** Bits of the version that tell of tiles, and of deep or several parts, whose blocks are laid out otherwise. */
const TILED = 0x2;
const OTHERWISE = 0x18;

/** The reader takes what is missing for black: so it is seen to that every block is there. */
function checkWhole(bytes: Uint8Array, header: number): void {
  if (bytes[5] & OTHERWISE) return;
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  // Before its samples a block holds its row, or its place and level, and their length.
  const before = bytes[5] & TILED ? 20 : 8;
  try {
    const first = Number(view.getBigUint64(header, true));
    for (let at = header; at < first; at += 8) {
      const block = Number(view.getBigUint64(at, true));
      if (block + before + view.getInt32(block + before - 4, true) > bytes.length) throw new RangeError();
    }
  } catch {
    throw damaged('not all of its blocks are there');
  }
}

/** Linear floats of an OpenEXR picture; one channel is taken for grey. @throws Problem `damaged`. */
export async function decodeExr(bytes: Uint8Array): Promise<Pixels> {
  const { width, height, channels, header } = exrFacts(bytes);
  checkWhole(bytes, header);
  // The reader is large and seldom needed.
  const { FloatType } = await import('three');
  const { EXRLoader } = await import('three/examples/jsm/loaders/EXRLoader.js');
  let decoded: { width: number; height: number; data: unknown };
  try {
    const loader = new EXRLoader();
    loader.setDataType(FloatType);
    decoded = loader.parse(bytes.slice().buffer) as unknown as typeof decoded;
  } catch (error) {
    throw damaged(error instanceof Error ? error.message.replace(/^THREE\.EXRLoader: /, '') : 'unknown');
  }
  const floats = decoded.data as Float32Array;
  const each = floats.length / (width * height);
  if (decoded.width !== width || decoded.height !== height || (each !== 1 && each !== 4)) {
    throw damaged('it holds other samples than its header says');
  }
  const hasAlpha = channels.includes('A') && each === 4;
  const out: 3 | 4 = hasAlpha ? 4 : 3;
  const data = new Float32Array(width * height * out);
  for (let y = 0; y < height; y++) {
    // Rows come from the bottom.
    const row = (height - 1 - y) * width;
    for (let x = 0; x < width; x++) {
      const from = (row + x) * each;
      const to = (y * width + x) * out;
      for (let c = 0; c < out; c++) data[to + c] = floats[from + (each === 1 ? 0 : c)];
    }
  }
  return { width, height, channels: out, data, originalWidth: width, originalHeight: height };
}
