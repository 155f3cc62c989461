import { deflateSync } from 'node:zlib';
import { decodePicture, LIMITS, readFacts } from '@zesty-tile/codecs';
import { Problem } from '@zesty-tile/core';
import { expect } from 'chai';
import { exrFile } from './exr-file.ts';

const word = (text: string) => Buffer.from(`${text}\0`, 'latin1');
const ints = (...values: number[]) => Buffer.from(Int32Array.from(values).buffer);
const attribute = (name: string, type: string, value: Buffer, length = value.length) =>
  Buffer.concat([word(name), word(type), ints(length), value]);
const start = (flags = 0) => Buffer.from([0x76, 0x2f, 0x31, 0x01, 2, flags, 0, 0]);

const channels = Buffer.concat([
  ...['B', 'G', 'R'].map((name) => Buffer.concat([word(name), ints(2), Buffer.alloc(4), ints(1, 1)])),
  Buffer.alloc(1),
]);
const header = (width: number, height: number, { flags = 0, compression = 0, list = channels } = {}) =>
  Buffer.concat([
    start(flags),
    attribute('channels', 'chlist', list),
    attribute('compression', 'compression', Buffer.from([compression])),
    attribute('dataWindow', 'box2i', ints(0, 0, width - 1, height - 1)),
    Buffer.alloc(1),
  ]);

/** Code of the problem that both the header and the decoder report, and how long that took at most, in ms. */
async function refused(bytes: Uint8Array): Promise<string> {
  const codes: string[] = [];
  for (const work of [readFacts, decodePicture]) {
    const before = performance.now();
    const problem = await work(bytes).then(
      () => expect.fail('it was accepted'),
      (error) => error,
    );
    expect(problem, problem.stack).to.be.instanceOf(Problem);
    expect(problem.hint).to.match(/\w/);
    expect(performance.now() - before, 'ms').to.be.below(5000);
    codes.push(problem.code);
  }
  expect(codes[0]).to.equal(codes[1]);
  return codes[0];
}

describe('hostile OpenEXR files', () => {
  it('with lengths that lead backwards or past the end are refused', async () => {
    for (const length of [-24, -(2 ** 31), 2 ** 31 - 1, 4096]) {
      const bytes = Buffer.concat([start(), attribute('a', 'string', Buffer.alloc(48), length)]);
      expect(await refused(bytes), String(length)).to.equal('damaged');
    }
  });

  it('with a list of channels that runs past its end are refused', async () => {
    const endless = Buffer.concat([
      start(),
      word('channels'),
      word('chlist'),
      ints(2 ** 30),
      Buffer.alloc(60, 65),
    ]);
    expect(await refused(endless)).to.equal('damaged');
    const open = channels.subarray(0, -1);
    expect(await refused(header(64, 64, { list: open }))).to.equal('damaged');
    const many = Buffer.concat([
      ...Array.from({ length: 200 }, (_, k) =>
        Buffer.concat([word(`c${k}`), ints(2), Buffer.alloc(4), ints(1, 1)]),
      ),
      Buffer.alloc(1),
    ]);
    expect(await refused(header(64, 64, { list: many }))).to.equal('exr_layout');
  });

  it('of 100 MB without an end of a name are refused at once', async () => {
    const bytes = Buffer.concat([start(), Buffer.alloc(100 * 2 ** 20, 65)]);
    expect(bytes.length).to.be.below(LIMITS.bytes);
    expect(await refused(bytes)).to.equal('damaged');
  }).timeout(60_000);

  it('of several parts, with deep samples, or of a layout that is not read are refused in words', async () => {
    const whole = exrFile(64, 64, { R: () => 1, G: () => 1, B: () => 1 });
    for (const flags of [0x10, 0x08, 0x18]) {
      const bytes = Buffer.from(whole);
      bytes[5] = flags;
      expect(await refused(bytes), String(flags)).to.equal('exr_layout');
    }
    expect(await refused(exrFile(64, 64, { Z: () => 1 }))).to.equal('exr_layout');
    for (const [byte, value] of [
      [4, 1],
      [5, 0x40],
      [6, 1],
    ]) {
      const bytes = Buffer.from(whole);
      bytes[byte] = value;
      expect(await refused(bytes)).to.equal('damaged');
    }
  });

  it('that hold no sample, blocks twice, or blocks past the end are refused', async () => {
    expect(await refused(header(10900, 11000))).to.equal('damaged');
    const empty = Buffer.concat([header(10900, 11000), Buffer.alloc(8 * 11000)]);
    expect(await refused(empty)).to.equal('damaged');
    const whole = exrFile(64, 64, { R: () => 1, G: () => 1, B: () => 1 });
    const rows = whole.length - 64 * (8 + 64 * 12);
    const twice = Buffer.from(whole);
    twice.writeInt32LE(0, rows + 8 + 64 * 12);
    expect(await refused(twice)).to.equal('damaged');
    const long = Buffer.from(whole);
    long.writeUInt32LE(0xffffffff, rows + 4);
    expect(await refused(long)).to.equal('damaged');
    const outside = Buffer.from(whole);
    outside.writeInt32LE(-5, rows);
    expect(await refused(outside)).to.equal('damaged');
  });

  it('whose blocks unpack to more than their pixels are refused before they do', async () => {
    const zip = 3;
    const bomb = deflateSync(Buffer.alloc(200 * 2 ** 20));
    const raw = 4096 * 16 * 12;
    const table = Buffer.alloc(8 * 4);
    const blocks = Array.from({ length: 4 }, (_, k) => {
      const data = bomb.subarray(0, Math.min(bomb.length, raw - 1));
      return Buffer.concat([ints(16 * k, data.length), data]);
    });
    const before = process.memoryUsage().rss;
    expect(await refused(Buffer.concat([header(4096, 64, { compression: zip }), table, ...blocks]))).to.equal(
      'damaged',
    );
    expect(process.memoryUsage().rss - before).to.be.below(150 * 2 ** 20);
  });

  it('tiles with levels of their own for width and height, or without a size, are refused', async () => {
    const tiled = (tiles: Buffer) =>
      Buffer.concat([
        start(0x02),
        attribute('channels', 'chlist', channels),
        attribute('compression', 'compression', Buffer.from([0])),
        attribute('dataWindow', 'box2i', ints(0, 0, 63, 63)),
        attribute('tiles', 'tiledesc', tiles),
        Buffer.alloc(1),
        Buffer.alloc(4096),
      ]);
    expect(await refused(tiled(Buffer.concat([ints(32, 32), Buffer.from([2])])))).to.equal('exr_layout');
    expect(await refused(tiled(Buffer.concat([ints(0, 32), Buffer.from([0])])))).to.equal('damaged');
    expect(await refused(tiled(Buffer.concat([ints(1, 1), Buffer.from([1])])))).to.equal('damaged');
  });
});
