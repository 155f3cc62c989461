import { expect } from 'chai';
import { buffersOf, toHandOut } from '../src/engine/handed-out.ts';
import type { ShownView } from '../src/engine/protocol.ts';

describe('what the engine hands to the page', () => {
  const shared = new Float32Array(new SharedArrayBuffer(16));
  const own = Float32Array.of(1, 2, 3, 4);

  it('is seen by both where memory is shared, and else a copy', () => {
    expect(toHandOut(shared)).to.equal(shared);
    const copy = toHandOut(own);
    expect(copy).to.deep.equal(own);
    copy[0] = 9;
    expect(own[0]).to.equal(1);
  });

  it('gives up the memory of copies and pictures alone: shared memory cannot be given up', () => {
    const rgba = new Uint8ClampedArray(4);
    const view: ShownView = {
      view: 'albedo',
      width: 1,
      height: 1,
      rgba,
      planes: [toHandOut(shared), toHandOut(own)],
      repairs: 0,
    };
    expect(buffersOf(view)).to.deep.equal([rgba.buffer, view.planes[1].buffer]);
    structuredClone(view, { transfer: buffersOf(view) });
    expect(shared.length).to.equal(4);
    expect(own.length).to.equal(4);
    expect(rgba.length).to.equal(0);
  });
});
