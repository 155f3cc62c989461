import { Problem } from '@zesty-tile/core';

const MAGIC = [0x76, 0x2f, 0x31, 0x01];

/** Whether a file is an OpenEXR picture, by its first four bytes. */
export const isExr = (bytes: Uint8Array): boolean => MAGIC.every((byte, k) => bytes[k] === byte);

export const exrDamaged = (why: string) =>
  new Problem(
    'damaged',
    `The OpenEXR picture is incomplete or damaged (${why}).`,
    'Copy it again from where it came, or open it and save it again.',
  );

const unsupported = (what: string) =>
  new Problem('exr_layout', `The OpenEXR picture ${what}.`, 'Save it as one flat picture in RGB or grey.');

/** Flags in the sixth byte. Long names only allow names of up to 255 bytes, which are always read. */
const TILED = 0x02;
const LONG_NAMES = 0x04;
const DEEP = 0x08;
const MULTIPART = 0x10;

const HEADER_BYTES = 1 << 20;
const NAME_BYTES = 255;
const MOST_ATTRIBUTES = 1024;
const MOST_CHANNELS = 64;
/** Bound on what the decoder may allocate for one block, in bytes. */
const BLOCK_BYTES = 1 << 29;

/** Bytes of attribute types with a fixed length. The decoder reads that many, whatever length is stated. */
const FIXED_BYTES: Record<string, number> = {
  box2i: 16,
  chromaticities: 32,
  compression: 1,
  envmap: 1,
  float: 4,
  int: 4,
  lineOrder: 1,
  rational: 8,
  tiledesc: 9,
  timecode: 8,
  v2f: 8,
  v3f: 12,
};

/** Compressions by their code in the file, with the rows of one block. */
const COMPRESSIONS = [
  { name: 'none', rows: 1 },
  { name: 'rle', rows: 1 },
  { name: 'zips', rows: 1 },
  { name: 'zip', rows: 16 },
  { name: 'piz', rows: 32 },
  { name: 'pxr24', rows: 16 },
  { name: 'b44', rows: 32 },
  { name: 'b44a', rows: 32 },
  { name: 'dwaa', rows: 32 },
  { name: 'dwab', rows: 256 },
] as const;

export interface ExrHeader {
  width: number;
  height: number;
  /** First row of the data window; blocks name their rows from it. */
  top: number;
  channels: string[];
  compression: (typeof COMPRESSIONS)[number]['name'];
  /** Bytes of one pixel over all channels, uncompressed. */
  pixelBytes: number;
  /** Size of a block in pixels: whole rows, or a tile. */
  block: { width: number; height: number };
  tiled: { levels: 'one' | 'mipmap'; roundUp: boolean } | null;
  /** Bytes before the table of block offsets. */
  length: number;
}

/** Reads forward within bounds; every step past the end is a `damaged` problem. */
class Reader {
  readonly #bytes: Uint8Array;
  readonly #view: DataView;
  readonly #end: number;
  at: number;

  constructor(bytes: Uint8Array, at: number, end: number) {
    this.#bytes = bytes;
    this.#view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
    this.#end = Math.min(end, bytes.length);
    this.at = at;
  }

  /** Steps over `count` bytes and returns where they start. */
  skip(count: number): number {
    const from = this.at;
    if (count < 0 || from + count > this.#end) throw exrDamaged('its header is cut off');
    this.at += count;
    return from;
  }

  byte = () => this.#view.getUint8(this.skip(1));
  int = () => this.#view.getInt32(this.skip(4), true);

  /** A name that ends in a zero byte. */
  name(): string {
    const end = this.#bytes.subarray(this.at, Math.min(this.#end, this.at + NAME_BYTES + 1)).indexOf(0);
    if (end < 0) throw exrDamaged('a name in its header does not end');
    const from = this.skip(end + 1);
    return String.fromCharCode(...this.#bytes.subarray(from, from + end));
  }
}

interface Channel {
  name: string;
  /** 1 half, 2 float; whole numbers (0) are refused. */
  type: number;
  isSubsampled: boolean;
}

function readChannels(reader: Reader, end: number): Channel[] {
  const channels: Channel[] = [];
  while (reader.at < end - 1) {
    const name = reader.name();
    const type = reader.int();
    reader.skip(4);
    const [across, down] = [reader.int(), reader.int()];
    if (!name || type < 0 || type > 2 || across < 1 || down < 1) throw exrDamaged('a channel is not valid');
    if (channels.some((one) => one.name === name)) throw exrDamaged(`two channels are called ${name}`);
    channels.push({ name, type, isSubsampled: across > 1 || down > 1 });
    if (channels.length > MOST_CHANNELS) throw unsupported(`has more than ${MOST_CHANNELS} channels`);
  }
  if (reader.at !== end - 1 || reader.byte() !== 0) throw exrDamaged('its list of channels does not end');
  return channels;
}

/** Refuses channels that the decoder would read in the wrong places. */
function checkChannels(channels: Channel[], compression: string): void {
  const names = channels.map(({ name }) => name);
  const has = (...wanted: string[]) => wanted.every((name) => names.includes(name));
  if (!has('R', 'G', 'B') && !has('Y')) throw unsupported('has neither the channels R, G, B nor Y');
  if (channels.some(({ type }) => type === 0)) throw unsupported('has a channel of whole numbers');
  if (new Set(channels.map(({ type }) => type)).size > 1) {
    throw unsupported('has channels of different precision');
  }
  if (channels.some(({ isSubsampled }) => isSubsampled) && !compression.startsWith('b44')) {
    throw unsupported('has subsampled channels');
  }
}

interface Attributes {
  window?: number[];
  channels?: Channel[];
  compression?: (typeof COMPRESSIONS)[number];
  tiles?: { width: number; height: number; modes: number };
}

const TYPES: Record<string, string> = {
  channels: 'chlist',
  compression: 'compression',
  dataWindow: 'box2i',
  tiles: 'tiledesc',
};

function readAttributes(reader: Reader): Attributes {
  const found: Attributes = {};
  const seen = new Set<string>();
  for (;;) {
    const name = reader.name();
    if (name === '') return found;
    const type = reader.name();
    const length = reader.int();
    const from = reader.skip(length);
    if (seen.has(name) || seen.size >= MOST_ATTRIBUTES) throw exrDamaged('its header repeats itself');
    seen.add(name);
    if (Object.hasOwn(FIXED_BYTES, type) && FIXED_BYTES[type] !== length) {
      throw exrDamaged(`${name} has a wrong length`);
    }
    if (Object.hasOwn(TYPES, name) && TYPES[name] !== type) throw exrDamaged(`${name} has a wrong type`);
    const end = reader.at;
    reader.at = from;
    if (name === 'dataWindow') found.window = [reader.int(), reader.int(), reader.int(), reader.int()];
    else if (name === 'compression') found.compression = COMPRESSIONS[reader.byte()];
    else if (name === 'tiles') {
      found.tiles = { width: reader.int(), height: reader.int(), modes: reader.byte() };
    } else if (type === 'chlist') {
      const channels = readChannels(reader, end);
      if (name === 'channels') found.channels = channels;
    }
    reader.at = end;
  }
}

/**
 * Reads the header of an OpenEXR file, with every length checked against the file.
 * @throws Problem `damaged` where the header is not valid; `exr_layout` for several parts, deep samples, ripmaps,
 * and channels that are not read.
 */
export function readExrHeader(bytes: Uint8Array): ExrHeader {
  const reader = new Reader(bytes, 4, HEADER_BYTES);
  const version = reader.byte();
  const flags = reader.byte();
  const others = reader.byte() | reader.byte();
  if (flags & MULTIPART) throw unsupported('has several parts');
  if (flags & DEEP) throw unsupported('has deep samples');
  if (version !== 2 || others !== 0 || flags & ~(TILED | LONG_NAMES))
    throw exrDamaged('its version is unknown');
  const { window, channels, compression, tiles } = readAttributes(reader);
  if (!window) throw exrDamaged('its header has no size');
  const [left, top, right, bottom] = window;
  const width = right - left + 1;
  const height = bottom - top + 1;
  if (width < 1 || height < 1) throw exrDamaged('its header has no size');
  if (!channels || channels.length === 0) throw exrDamaged('its header has no channels');
  if (!compression) throw exrDamaged('its compression is unknown');
  checkChannels(channels, compression.name);
  let block = { width, height: compression.rows as number };
  let tiled: ExrHeader['tiled'] = null;
  if (flags & TILED) {
    if (!tiles || tiles.width < 1 || tiles.height < 1) throw exrDamaged('its tiles have no size');
    const levels = tiles.modes & 0xf;
    if (levels === 2) throw unsupported('has separate levels for width and height');
    if (levels > 2 || tiles.modes >> 4 > 1) throw exrDamaged('its levels are unknown');
    block = { width: tiles.width, height: tiles.height };
    tiled = { levels: levels === 1 ? 'mipmap' : 'one', roundUp: tiles.modes >> 4 === 1 };
  }
  const pixelBytes = 2 * channels.reduce((sum, { type }) => sum + type, 0);
  const largest = Math.min(block.width, width) * Math.min(block.height, height) * pixelBytes;
  if (largest * channels.length > BLOCK_BYTES) throw unsupported('has blocks that are too large');
  return {
    width,
    height,
    top,
    channels: channels.map(({ name }) => name),
    compression: compression.name,
    pixelBytes,
    block,
    tiled,
    length: reader.at,
  };
}
