import { expect } from 'chai';
import fc from 'fast-check';
import { Slabs } from '../../src/memory/slabs.ts';

const PLANE = 16;

describe('memory in slabs', () => {
  it('gives arrays that never overlap, and takes no more than it must', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.constantFrom(1, 2, 4), fc.nat(30)), { maxLength: 60 }), (wishes) => {
        const slabs = new Slabs(PLANE);
        const held: Float32Array[] = [];
        for (const [k, [planes, which]] of wishes.entries()) {
          if (which < held.length && which % 3 === 0) slabs.give(...held.splice(which, 1));
          const array = slabs.take(planes * PLANE).fill(k + 1);
          expect(array.length).to.equal(planes * PLANE);
          held.push(array);
        }
        for (const array of held) expect(new Set(array).size).to.equal(1);
        expect(new Set(held.map(([mark]) => mark)).size).to.equal(held.length);
      }),
    );
  });

  it('joins what was halved, so that a large array finds room again', () => {
    const slabs = new Slabs(PLANE);
    const four = [1, 1, 1, 1].map((planes) => slabs.take(planes * PLANE));
    expect(slabs.planes).to.equal(4);
    slabs.give(four[2], four[0], four[3], four[1]);
    slabs.give(slabs.take(2 * PLANE), slabs.take(2 * PLANE));
    expect(slabs.take(4 * PLANE).length).to.equal(4 * PLANE);
    expect(slabs.planes).to.equal(4);
  });

  it('refuses what is given twice, and leaves other memory alone', () => {
    const slabs = new Slabs(PLANE);
    const one = slabs.take(PLANE);
    slabs.give(one);
    expect(() => slabs.give(one)).to.throw('twice');
    slabs.give(new Float32Array(PLANE), slabs.take(3 * PLANE));
    expect(slabs.planes).to.equal(4);
  });
});
