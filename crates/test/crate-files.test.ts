import { inflateSync } from 'node:zlib';
import { encodeFile } from '@zesty-tile/codecs';
import {
  type CrateFile,
  FORMAT_BITS,
  FORMATS,
  type Format,
  KERNELS,
  mipSides,
  type Samples,
} from '@zesty-tile/core';
import { readBack } from '@zesty-tile/crates';
import { expect } from 'chai';
import jpeg from 'jpeg-js';
import { PNG } from 'pngjs';
import { TGALoader } from 'three/examples/jsm/loaders/TGALoader.js';
import UTIF from 'utif2';

const [width, height] = [32, 16];
/** Samples of a slope in every channel, each of another steepness. */
function made(format: Format, bits: 8 | 16 | 32, channels: 1 | 3 | 4, kind: 'colour' | 'data'): CrateFile {
  const planes = Array.from({ length: channels }, (_, c) =>
    Float32Array.from({ length: width * height }, (_v, i) => (((i % width) + c * 3) % width) / width),
  );
  return {
    ending: 'x',
    format,
    bits,
    kind,
    maps: ['albedo'],
    contents: [],
    channels,
    channelMaps: planes.map(() => 'albedo'),
    rung: 0,
    rows: () => (from, to) => planes.map((plane) => plane.subarray(from * width, to * width)),
    green: null,
    width,
    height,
    samples(mip = 0): Samples {
      const small = mipSides({ width, height }, mip);
      // Every level of another value, so that one in the place of another is found out.
      const of =
        mip === 0
          ? planes
          : planes.map((_, c) => new Float32Array(small.width * small.height).fill(mip / 9 + c / 99));
      if (format !== 'exr') return KERNELS.quantise(of, bits === 8 ? 8 : 16);
      return Float32Array.from(
        { length: channels * of[0].length },
        (_, i) => of[i % channels][Math.floor(i / channels)],
      );
    },
  };
}

/** A file read by another decoder than the one that wrote it: samples as whole codes, interleaved. */
const READERS: Record<
  Exclude<Format, 'webp' | 'exr' | 'ktx2'>,
  (bytes: Buffer, file: CrateFile) => number[]
> = {
  png(bytes, { bits, channels }) {
    const png = PNG.sync.read(bytes, { skipRescale: true });
    expect([png.width, png.height, png.depth]).to.deep.equal([width, height, bits]);
    // It hands out four channels, grey thrice.
    const at = channels === 1 ? [0] : [0, 1, 2, 3].slice(0, channels);
    return Array.from({ length: width * height }).flatMap((_, i) => at.map((c) => png.data[4 * i + c]));
  },
  tiff(bytes, { bits, channels }) {
    const [ifd] = UTIF.decode(bytes);
    UTIF.decodeImage(bytes, ifd);
    expect([ifd.width, ifd.height]).to.deep.equal([width, height]);
    const tags = ifd as unknown as Record<string, number[]>;
    expect(tags.t258).to.deep.equal(Array(channels).fill(bits));
    const data = ifd.data as Uint8Array;
    if (bits === 8) return [...data];
    return Array.from({ length: width * height * channels }, (_, i) =>
      (tags.isLE as unknown as boolean)
        ? data[2 * i] + 256 * data[2 * i + 1]
        : 256 * data[2 * i] + data[2 * i + 1],
    );
  },
  tga(bytes, { channels }) {
    const read = new TGALoader().parse(
      bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length) as ArrayBuffer,
    ) as unknown as { width: number; height: number; data: Uint8Array; flipY?: boolean };
    expect([read.width, read.height]).to.deep.equal([width, height]);
    const at = channels === 1 ? [0] : [0, 1, 2, 3].slice(0, channels);
    return Array.from({ length: width * height }).flatMap((_, i) => at.map((c) => read.data[4 * i + c]));
  },
  jpeg(bytes, { channels }) {
    const read = jpeg.decode(bytes, { useTArray: true });
    expect([read.width, read.height]).to.deep.equal([width, height]);
    const at = channels === 1 ? [0] : [0, 1, 2];
    return Array.from({ length: width * height }).flatMap((_, i) => at.map((c) => read.data[4 * i + c]));
  },
};

/** Value of a half. */
function halfOf(code: number): number {
  const exponent = (code >> 10) & 31;
  const part = code & 1023;
  const size = exponent === 0 ? part * 2 ** -24 : (1 + part / 1024) * 2 ** (exponent - 15);
  return code & 0x8000 ? -size : size;
}

/** A ZIP compressed OpenEXR of scan lines, read by the format's own description. */
function readExr(bytes: Buffer) {
  expect(bytes.readUInt32LE(0)).to.equal(20000630);
  let at = 8;
  const word = () => {
    const end = bytes.indexOf(0, at);
    const text = bytes.toString('latin1', at, end);
    at = end + 1;
    return text;
  };
  const names: string[] = [];
  let [type, compression, width, height] = [0, 0, 0, 0];
  for (let name = word(); name; name = word()) {
    word();
    const next = at + 4 + bytes.readInt32LE(at);
    at += 4;
    if (name === 'channels') {
      for (let channel = word(); channel; channel = word()) {
        names.push(channel);
        type = bytes.readInt32LE(at);
        at += 16;
      }
    }
    if (name === 'compression') compression = bytes[at];
    if (name === 'dataWindow') {
      width = bytes.readInt32LE(at + 8) + 1;
      height = bytes.readInt32LE(at + 12) + 1;
    }
    at = next;
  }
  const size = type === 1 ? 2 : 4;
  const planes = Object.fromEntries(names.map((name) => [name, new Float32Array(width * height)]));
  for (let top = 0, table = at; top < height; top += 16, table += 8) {
    const block = Number(bytes.readBigUInt64LE(table));
    expect(bytes.readInt32LE(block)).to.equal(top);
    const packed = bytes.subarray(block + 8, block + 8 + bytes.readInt32LE(block + 4));
    const rows = Math.min(16, height - top);
    const length = rows * width * names.length * size;
    let raw: Buffer = Buffer.from(packed);
    if (packed.length < length) {
      raw = Buffer.from(inflateSync(packed));
      for (let i = 1; i < raw.length; i++) raw[i] = (raw[i - 1] + raw[i] - 128) & 255;
      const half = Math.ceil(raw.length / 2);
      raw = Buffer.from(raw.map((_, i) => raw[(i >> 1) + (i & 1 ? half : 0)]));
    }
    let from = 0;
    for (let y = top; y < top + rows; y++)
      for (const name of names)
        for (let x = 0; x < width; x++, from += size)
          planes[name][y * width + x] = size === 2 ? halfOf(raw.readUInt16LE(from)) : raw.readFloatLE(from);
  }
  return { width, height, compression, planes };
}

/** A KTX 2.0 file, read by the format's own description. */
function readKtx2(bytes: Buffer) {
  expect(bytes.subarray(0, 12).toString('latin1')).to.equal('«KTX 20»\r\n\x1a\n');
  const number = (k: number) => bytes.readUInt32LE(12 + 4 * k);
  const [vkFormat, , width, height, , , , count, supercompression] = Array.from({ length: 9 }, (_, k) =>
    number(k),
  );
  expect(supercompression).to.equal(0);
  const descriptor = number(9);
  const levels = Array.from({ length: count }, (_, k) => {
    const [from, length, whole] = [0, 8, 16].map((at) => Number(bytes.readBigUInt64LE(80 + 24 * k + at)));
    expect(length).to.equal(whole);
    return { from, bytes: bytes.subarray(from, from + length) };
  });
  for (let k = 1; k < count; k++) expect(levels[k].from).to.be.below(levels[k - 1].from);
  return {
    vkFormat,
    width,
    height,
    transfer: bytes[descriptor + 14],
    levels: levels.map((level) => level.bytes),
  };
}

describe('files of a crate, read by other decoders than wrote them', () => {
  for (const [format, bits, channels] of [
    ['png', 8, 1],
    ['png', 8, 3],
    ['png', 8, 4],
    ['png', 16, 1],
    ['png', 16, 3],
    ['tiff', 8, 1],
    ['tiff', 8, 3],
    ['tiff', 16, 1],
    ['tiff', 16, 3],
    ['jpeg', 8, 1],
    ['jpeg', 8, 3],
    ['tga', 8, 1],
    ['tga', 8, 3],
    ['tga', 8, 4],
  ] as const) {
    it(`${format}, ${bits} bit, ${channels} channels holds what was meant`, async () => {
      const file = made(format, bits, channels, 'data');
      const bytes = Buffer.from(await encodeFile(file));
      const codes = READERS[format](bytes, file);
      const wanted = [...file.samples()];
      expect(codes).to.have.length(wanted.length);
      const off = Math.max(...codes.map((code, i) => Math.abs(code - wanted[i])));
      // A slope with a jump at its end is the hardest for a lossy one.
      expect(off).to.be.at.most(format === 'jpeg' ? 12 : 0);
    });
  }

  for (const bits of [16, 32] as const) {
    it(`OpenEXR of ${bits} bit holds what was meant, linear, rows from the top`, async () => {
      for (const channels of [1, 3, 4] as const) {
        const file = made('exr', bits, channels, 'data');
        const read = readExr(Buffer.from(await encodeFile(file)));
        expect([read.width, read.height, read.compression]).to.deep.equal([width, height, 3]);
        expect(Object.keys(read.planes)).to.deep.equal(['A', 'B', 'G', 'R']);
        const samples = file.samples();
        const at = (c: number, i: number) =>
          c === 3 && channels < 4 ? 1 : samples[i * channels + Math.min(c, channels - 1)];
        for (const [c, name] of ['R', 'G', 'B', 'A'].entries()) {
          read.planes[name].forEach((value, i) => {
            const wanted = at(c, i);
            expect(Math.abs(value - wanted)).to.be.at.most(bits === 32 ? 0 : wanted * 2 ** -11 + 2 ** -25);
          });
        }
      }
    });
  }

  it('KTX 2.0 holds its whole chain of mips, smallest first, colour as sRGB', async () => {
    for (const [bits, channels, kind, vkFormat, transfer] of [
      [8, 4, 'colour', 43, 2],
      [8, 3, 'data', 23, 1],
      [8, 1, 'data', 9, 1],
      [16, 1, 'data', 70, 1],
    ] as const) {
      const file = made('ktx2', bits, channels, kind);
      const read = readKtx2(Buffer.from(await encodeFile(file)));
      expect([read.vkFormat, read.width, read.height, read.transfer]).to.deep.equal([
        vkFormat,
        width,
        height,
        transfer,
      ]);
      // 32 × 16, 16 × 8, … 2 × 1, 1 × 1.
      expect(read.levels).to.have.length(6);
      for (const [mip, level] of read.levels.entries()) {
        const wanted = file.samples(mip);
        const codes = bits === 8 ? [...level] : [...new Uint16Array(Uint8Array.from(level).buffer)];
        expect(codes, `level ${mip}`).to.deep.equal([...wanted]);
      }
    }
  });

  it('colour carries an sRGB profile where the format has room for one, data none', async () => {
    for (const format of FORMATS.filter((one) => !['tga', 'exr', 'ktx2'].includes(one))) {
      for (const kind of ['colour', 'data'] as const) {
        const bytes = Buffer.from(await encodeFile(made(format, 8, 3, kind))).toString('latin1');
        // The profile's own signature: “acsp” at its 36th byte; in PNG it is packed, and its chunk is named.
        const has = bytes.includes('acsp') || bytes.includes('iCCP') || bytes.includes('ICCP');
        expect(has, `${format} ${kind}`).to.equal(kind === 'colour');
      }
    }
  });

  it('a colour PNG of 16 bits says that it is sRGB, and holds its codes', async () => {
    const file = made('png', 16, 3, 'colour');
    const bytes = Buffer.from(await encodeFile(file));
    expect(bytes.includes('sRGB')).to.equal(true);
    expect(READERS.png(bytes, file)).to.deep.equal([...file.samples()]);
  });

  it('are read back as they were meant, in every format', async () => {
    for (const format of FORMATS) {
      for (const kind of ['colour', 'data'] as const) {
        for (const bits of FORMAT_BITS[format]) {
          for (const channels of [1, 3, 4] as const) {
            if ((channels === 4 && format === 'jpeg') || (channels === 1 && format === 'webp')) continue;
            if ((format === 'tiff' || format === 'ktx2') && kind === 'colour' && bits === 16) continue;
            const file = made(format, bits, channels, kind);
            const { most, mean } = await readBack(file, await encodeFile(file)).catch((error) => {
              throw new Error(`${format} ${kind} ${bits} ${channels}: ${error.message}`);
            });
            const isLossy = format === 'jpeg' || (format === 'webp' && kind === 'colour');
            const isHalf = format === 'exr' && bits === 16;
            expect(most, `${format} ${kind} ${bits} ${channels}`).to.be.at.most(
              isLossy ? 200 : isHalf ? 16 : 0,
            );
            expect(mean).to.be.at.most(isHalf ? 16 : !isLossy ? 0 : format === 'jpeg' ? 4 : 12);
          }
        }
      }
    }
  });

  it('one that holds something else is never called done', async () => {
    for (const format of ['png', 'jpeg', 'tga'] as const) {
      const file = made(format, 8, 3, 'data');
      const wrong = { ...file, samples: () => file.samples().map((code) => 255 - code) };
      const bytes = await encodeFile(wrong);
      const problem = await readBack(file, bytes).then(
        () => null,
        (error) => error,
      );
      expect(problem?.code, format).to.equal('read_back');
      const smaller = {
        ...file,
        width: width / 2,
        samples: () => file.samples().slice(0, (3 * width * height) / 2),
      };
      const less = await encodeFile(smaller);
      expect(await readBack(file, less).catch((error) => error.code)).to.equal('read_back');
    }
  });

  it('WebP of data is without loss', async () => {
    const bytes = Buffer.from(await encodeFile(made('webp', 8, 3, 'data')));
    expect(bytes.subarray(0, 4).toString()).to.equal('RIFF');
    // A lossless picture's own mark.
    expect(bytes.includes('VP8L')).to.equal(true);
  });
});
