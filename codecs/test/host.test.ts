import { sourceHost } from '@zesty-tile/codecs';
import { expect } from 'chai';
import { picture } from './pictures.ts';

describe('a host of pictures', () => {
  /** A host of pictures of `width` × 64, which counts what it reads. */
  async function counted(cacheBytes: number) {
    const read: string[] = [];
    const host = sourceHost(
      async ({ sha256, width }) => {
        read.push(sha256);
        return picture(width, 64).png().toBuffer();
      },
      { cacheBytes },
    );
    const ask = (sha256: string, edge = 64) => host.pixels({ sha256, width: 96, height: 64 }, edge, 'data');
    return { host, read, ask };
  }
  const EACH = 96 * 64 * 3;

  it('keeps the pictures used last, by their bytes', async () => {
    const { read, ask } = await counted(2 * EACH);
    await ask('a');
    await ask('b');
    await ask('a', 32);
    await ask('c');
    await ask('a');
    expect(read.join('')).to.equal('abc');
    await ask('b');
    expect(read.join('')).to.equal('abcb');
  });

  it('keeps none that is larger than its memory, and forgets all on request', async () => {
    const small = await counted(EACH - 1);
    await small.ask('a');
    await small.ask('a');
    expect(small.read.join('')).to.equal('aa');
    const large = await counted(10 * EACH);
    await large.ask('a');
    large.host.clear();
    await large.ask('a');
    expect(large.read.join('')).to.equal('aa');
  });

  it('reads a picture once for requests at the same time, and hands out samples that are not kept', async () => {
    const { host, read, ask } = await counted(10 * EACH);
    await Promise.all([ask('a'), ask('a', 32), ask('b')]);
    expect(read.join('')).to.equal('ab');
    const source = { sha256: 'a', width: 96, height: 64 };
    const taken = await host.take(source, 64, 'data');
    structuredClone(taken.data.buffer, { transfer: [taken.data.buffer as ArrayBuffer] });
    expect(taken.data.length).to.equal(0);
    expect((await ask('a')).data.length).to.equal(EACH);
    expect(read.join('')).to.equal('aba');
    // Reduced samples are a copy: the whole picture stays.
    await host.take(source, 32, 'data');
    await ask('a');
    expect(read.join('')).to.equal('aba');
  });

  it('goes on after a picture that cannot be read', async () => {
    const host = sourceHost(async ({ sha256 }) => {
      if (sha256 === 'bad') throw new Error('no such picture');
      return picture(96, 64).png().toBuffer();
    });
    const ask = (sha256: string) => host.pixels({ sha256, width: 96, height: 64 }, 64, 'data');
    const answers = await Promise.allSettled([ask('bad'), ask('good'), ask('bad')]);
    expect(answers.map(({ status }) => status)).to.deep.equal(['rejected', 'fulfilled', 'rejected']);
  });
});
