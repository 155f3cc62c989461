import { decodePicture, LIMITS, readFacts } from '@zesty-tile/codecs';
import { Problem } from '@zesty-tile/core';
import { expect } from 'chai';
import sharp from 'sharp';
import { giantPng, noisyJpeg, picture } from './pictures.ts';

const problemOf = (work: Promise<unknown>): Promise<Problem> =>
  work.then(
    () => {
      throw new Error('It was taken.');
    },
    (error) => {
      expect(error).to.be.instanceOf(Problem);
      expect(error.hint).to.match(/\w/);
      return error;
    },
  );

describe('decoding', () => {
  it('gives the very samples of a lossless file', async () => {
    for (const bytes of [
      await picture().png().toBuffer(),
      await picture().tiff({ compression: 'lzw' }).toBuffer(),
      await picture().webp({ lossless: true }).toBuffer(),
    ]) {
      const { width, height, channels, data } = await decodePicture(bytes);
      expect([width, height, channels]).to.deep.equal([96, 64, 3]);
      expect([data[3 * 10], data[3 * 10 + 1], data[3 * (5 * 96) + 2]]).to.deep.equal([70, 120, 50]);
    }
  });

  it('keeps 16 bits, of grey too', async () => {
    const values = Uint16Array.from({ length: 64 * 64 }, (_, i) => i * 16 + 3);
    const raw = { raw: { width: 64, height: 64, channels: 1 as const } };
    const tiff = await sharp(values, raw).toColourspace('grey16').tiff({ compression: 'lzw' }).toBuffer();
    const { data, channels } = await decodePicture(tiff);
    expect(data).to.be.instanceOf(Uint16Array);
    expect(channels).to.equal(3);
    for (const i of [0, 100, 4095])
      expect([data[3 * i], data[3 * i + 2]]).to.deep.equal([values[i], values[i]]);
    const png = await sharp(values, raw).toColourspace('grey16').png().toBuffer();
    expect((await decodePicture(png)).data[3 * 777]).to.equal(values[777]);
  });

  it('keeps alpha as it is, unmixed with the colour', async () => {
    const { data, channels } = await decodePicture(await picture(96, 64, 4).png().toBuffer());
    expect(channels).to.equal(4);
    expect([data[4 * 80], data[4 * 80 + 3]]).to.deep.equal([140, 64]);
  });

  it('turns a picture the way its orientation tag says', async () => {
    const bytes = await picture().withMetadata({ orientation: 6 }).jpeg({ quality: 100 }).toBuffer();
    const facts = await readFacts(bytes);
    expect([facts.width, facts.height]).to.deep.equal([64, 96]);
    const { width, height, data } = await decodePicture(bytes);
    expect([width, height]).to.deep.equal([64, 96]);
    // What was left is on top now.
    expect(data[3 * (2 * 64 + 30)]).to.be.below(data[3 * (90 * 64 + 30)] - 50);
  });

  it('converts an embedded profile to sRGB', async () => {
    const wide = await picture().withIccProfile('p3').png().toBuffer();
    const { data } = await decodePicture(wide);
    const plain = await decodePicture(await picture().png().toBuffer());
    // Written as P3 and read back through its tag it is the same colour; without the tag it would not be.
    expect(Math.abs(data[3 * 40] - plain.data[3 * 40])).to.be.at.most(3);
    const raw = await sharp(wide, { ignoreIcc: true }).raw().toBuffer();
    expect(Math.abs(raw[3 * 90 + 2] - plain.data[3 * 90 + 2])).to.be.above(3);
    expect(Math.abs(data[3 * 90 + 2] - plain.data[3 * 90 + 2])).to.be.at.most(3);
  });

  it('brings CMYK to RGB', async () => {
    const cmyk = await picture().toColourspace('cmyk').jpeg({ quality: 95 }).toBuffer();
    const { channels, data } = await decodePicture(cmyk);
    expect(channels).to.equal(3);
    expect(data[3 * 2000 + 1]).to.be.closeTo(120, 25);
  });

  it('refuses what is no picture, in plain words', async () => {
    expect((await problemOf(decodePicture(Buffer.from('just some text')))).code).to.equal('not_a_picture');
    expect((await problemOf(decodePicture(new Uint8Array()))).code).to.equal('empty_file');
    expect((await problemOf(decodePicture(await picture().gif().toBuffer()))).message).to.match(/gif/);
    const svg = Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="90" height="90"></svg>');
    expect((await problemOf(decodePicture(svg))).code).to.equal('not_a_picture');
  });

  it('refuses a picture that breaks off', async () => {
    const whole = await noisyJpeg();
    const cut = whole.subarray(0, Math.floor(whole.length / 2));
    expect((await problemOf(decodePicture(cut))).code).to.equal('damaged');
    expect((await decodePicture(whole)).width).to.equal(300);
  });

  it('refuses more bytes than it reads, whatever they are', async () => {
    expect((await problemOf(readFacts(new Uint8Array(LIMITS.bytes + 1)))).code).to.equal('file_too_large');
  });

  it('refuses moving pictures', async () => {
    const stills = await Promise.all(
      [picture(64, 64), picture(64, 64).negate()].map((p) => p.png().toBuffer()),
    );
    const frames = await sharp(stills, { join: { animated: true } })
      .webp()
      .toBuffer();
    const { code, message } = await problemOf(decodePicture(frames));
    expect(code).to.equal('animated');
    expect(message).to.include('2 pictures');
  });

  it('refuses a giant before it is unpacked, and what is too small to be a tile', async () => {
    const giant = giantPng();
    expect(giant.length).to.be.below(LIMITS.bytes);
    const before = process.memoryUsage().rss;
    const { code, message } = await problemOf(decodePicture(giant));
    expect(code).to.equal('too_many_pixels');
    expect(message).to.include('30000 × 30000');
    expect(process.memoryUsage().rss - before).to.be.below(300 * 2 ** 20);
    const dot = await sharp({ create: { width: 1, height: 1, channels: 3, background: '#888' } })
      .png()
      .toBuffer();
    expect((await problemOf(decodePicture(dot))).code).to.equal('too_small');
  }).timeout(120000);
});
