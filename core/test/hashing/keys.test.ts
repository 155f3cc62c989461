import { expect } from 'chai';
import { keyOf, stableJson } from '../../src/index.ts';

const data = () => ({
  b: [
    [Math.SQRT1_2, 1 / 3, Math.PI],
    [1e-7, -0, 1e21],
  ],
  a: { z: null, y: [undefined, 1, 'x'], x: undefined, n: [Number.NaN, 1] },
  c: [[[1, 2]], [[3, 4, 5, 6, 7]]],
});

describe('keys of data', () => {
  it('are those that earlier versions gave: results and sheets are found by them', () => {
    const expected =
      '{"a":{"n":[null,1],"y":[null,1,"x"],"z":null},"b":[[0.7071067811865476,0.3333333333333333,3.141592653589793],[1e-7,0,1e+21]],"c":[[[1,2]],[[3,4,5,6,7]]]}';
    expect(stableJson(data())).to.equal(expected);
    expect(keyOf(data())).to.equal('a7a8085024918b980a8eb72c4f3f1805');
  });

  it('are the same whatever the order of the names, and others for other data', () => {
    const { a, b, c } = data();
    expect(keyOf({ c, b, a })).to.equal(keyOf(data()));
    expect(stableJson({ c, b, a })).to.equal(stableJson(data()));
    for (const other of [
      { a, b },
      { a, b, c: [[[1, 2]], [[3, 4, 5, 6, 8]]] },
      { a, b: [[0, 0, 0], b[1]], c },
    ]) {
      expect(keyOf(other)).to.not.equal(keyOf(data()));
      expect(stableJson(other)).to.not.equal(stableJson(data()));
    }
  });
});
