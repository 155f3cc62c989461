import { type CrateFile, FORMAT_BITS, FORMATS, type Format, quantise } from '@zesty-tile/core';
import { expect } from 'chai';
import jpeg from 'jpeg-js';
import { PNG } from 'pngjs';
import { TGALoader } from 'three/examples/jsm/loaders/TGALoader.js';
import UTIF from 'utif2';
import { encodeFile, readBack } from '../src/index.ts';

const [width, height] = [32, 16];
/** Samples of a slope in every channel, each of another steepness. */
function made(format: Format, bits: 8 | 16, channels: 1 | 3 | 4, kind: 'colour' | 'data'): CrateFile {
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
    width,
    height,
    samples: () => quantise(planes, bits),
  };
}

/** A file read by another decoder than the one that wrote it: samples as whole codes, interleaved. */
const READERS: Record<Exclude<Format, 'webp'>, (bytes: Buffer, file: CrateFile) => number[]> = {
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

  it('colour carries an sRGB profile where the format has room for one, data none', async () => {
    for (const format of FORMATS.filter((one) => one !== 'tga')) {
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
            if (format === 'tiff' && kind === 'colour' && bits === 16) continue;
            const file = made(format, bits, channels, kind);
            const { most, mean } = await readBack(file, await encodeFile(file)).catch((error) => {
              throw new Error(`${format} ${kind} ${bits} ${channels}: ${error.message}`);
            });
            const isLossy = format === 'jpeg' || (format === 'webp' && kind === 'colour');
            expect(most, `${format} ${kind} ${bits} ${channels}`).to.be.at.most(isLossy ? 200 : 0);
            expect(mean).to.be.at.most(!isLossy ? 0 : format === 'jpeg' ? 4 : 12);
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
