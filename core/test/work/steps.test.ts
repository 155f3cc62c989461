import { fft2, runSteps, runToEnd, type Steps } from '@zesty-tile/core';
import { expect } from 'chai';
import { noisePlane } from '../fields.ts';

/** Counts to three, and says how it came to its end. */
function* counting(end: (how: string) => void): Steps<number> {
  let how = 'stopped';
  try {
    for (let k = 1; k < 3; k++) yield;
    how = 'done';
    return 3;
  } finally {
    end(how);
  }
}

describe('work that pauses', () => {
  it('comes to the same at once and in turns, with others let in at every pause', async () => {
    const ends: string[] = [];
    let pauses = 0;
    expect(runToEnd(counting((how) => ends.push(how)))).to.equal(3);
    const turns = runSteps(
      counting((how) => ends.push(how)),
      async () => {
        pauses++;
      },
    );
    expect(await turns).to.equal(3);
    expect(pauses).to.equal(2);
    expect(ends).to.deep.equal(['done', 'done']);
  });

  it('lets go of what it holds where it is stopped at a pause', async () => {
    const ends: string[] = [];
    const stopped = runSteps(
      counting((how) => ends.push(how)),
      async () => {
        throw new Error('Stopped on request.');
      },
    );
    expect(await stopped.catch((error: Error) => error.message)).to.equal('Stopped on request.');
    expect(ends).to.deep.equal(['stopped']);
  });

  it('a transform that pauses keeps its values while others are made, and after one was stopped', async () => {
    const [width, height] = [256, 512];
    const spectrum = (seed: number) => ({
      ...{ width, height },
      re: new Float64Array(noisePlane(width * height, seed)),
      im: new Float64Array(noisePlane(width * height, seed + 1)),
    });
    const alone = runToEnd(fft2(spectrum(1)));
    let pauses = 0;
    const beside = await runSteps(fft2(spectrum(1)), async () => {
      pauses++;
      if (pauses % 2 === 0) runToEnd(fft2(spectrum(7)));
      else await runSteps(fft2(spectrum(5)), () => Promise.reject(new Error('No more.'))).catch(() => {});
    });
    expect(pauses).to.be.above(2);
    expect(beside.re).to.deep.equal(alone.re);
    expect(beside.im).to.deep.equal(alone.im);
  });
});
