import { expect } from 'chai';
import { PlanePool } from '../../src/memory/pool.ts';

describe('a pool of planes', () => {
  it('hands out again what was given back, of the same length only', () => {
    const pool = new PlanePool();
    const plane = pool.take(12);
    pool.give(plane);
    expect(pool.take(11)).to.have.length(11);
    expect(pool.take(12)).to.equal(plane);
    expect(pool.take(12)).not.to.equal(plane);
    expect(pool.used).to.deep.equal({ taken: 4, reused: 1 });
  });

  it('keeps nothing that has other owners: parts of a memory, and memory that others see', () => {
    const pool = new PlanePool();
    const whole = new Float32Array(24);
    const part = whole.subarray(0, 12);
    const shared = new Float32Array(new SharedArrayBuffer(48));
    pool.give(part, shared);
    const taken = [pool.take(12), pool.take(12)];
    expect(taken).not.to.include(part);
    expect(taken).not.to.include(shared);
  });

  it('refuses what is given twice, and keeps no more than it may', () => {
    const pool = new PlanePool(100);
    const planes = [new Float32Array(12), new Float32Array(12), new Float32Array(12)];
    pool.give(...planes);
    expect(() => pool.give(planes[0])).to.throw('given back twice');
    expect([pool.take(12), pool.take(12)]).to.have.members(planes.slice(0, 2));
    expect(planes).not.to.include(pool.take(12));
  });
});
