import { expect } from 'chai';
import { leanOf } from '../src/bench/floor/use-brush.ts';

describe('how a pen leans', () => {
  it('is nowhere while it is held upright', () => {
    expect(leanOf({ tiltX: 3, tiltY: -4 })).to.equal(null);
  });
  it('goes clockwise from up', () => {
    expect(leanOf({ tiltX: 0, tiltY: -40 })).to.equal(0);
    expect(leanOf({ tiltX: 40, tiltY: 0 })).to.equal(90);
    expect(Math.abs(leanOf({ tiltX: 0, tiltY: 40 })!)).to.equal(180);
    expect(leanOf({ tiltX: -30, tiltY: -30 })).to.equal(-45);
  });
});
