import { expect } from 'chai';
import { Cache } from '../../src/engine/cache.ts';

const plane = (floats: number) => new Float32Array(floats);

describe('cache', () => {
  it('gives up what was used longest ago, as soon as it holds too much', () => {
    const cache = new Cache(3000);
    cache.set('a', plane(250));
    cache.set('b', plane(250));
    cache.get('a');
    cache.set('c', plane(250));
    expect(cache.bytes).to.equal(3000);
    cache.set('d', plane(1));
    expect(cache.get('b')).to.equal(undefined);
    expect(cache.get('a')).to.have.length(250);
  });

  it('a smaller limit takes effect at once', () => {
    const cache = new Cache(3000);
    for (const key of ['a', 'b', 'c']) cache.set(key, plane(250));
    cache.limit = 1000;
    expect(cache.bytes).to.equal(1000);
    expect(cache.get('c')).to.have.length(250);
    expect(cache.get('a')).to.equal(undefined);
  });
});
