import { coloursOfCoat, linearOfHex, linearToOklab, newCoat, newOutput, recoloured } from '@zesty-tile/core';
import { expect } from 'chai';
import fc from 'fast-check';
import { recolouredHex } from '../../../src/stations/coats/recolour.ts';

const hex = fc.integer({ min: 0, max: 0xffffff }).map((value) => `#${value.toString(16).padStart(6, '0')}`);
const labOf = (of: string) => linearToOklab(...linearOfHex(of));

describe('recolouring', () => {
  it('keeps the lightness and takes the hue, with no more chroma than there was', () => {
    fc.assert(
      fc.property(hex, hex, (own, like) => {
        const [L] = labOf(own);
        // Near black one code is a wide step of lightness.
        fc.pre(L > 0.25);
        const [, a, b] = labOf(like);
        const [L1, a1, b1] = labOf(recolouredHex(own, like));
        expect(L1).to.be.closeTo(L, 0.012);
        expect(Math.hypot(a1, b1)).to.be.at.most(Math.hypot(a, b) + 0.02);
        // Of colours that are plainly not grey.
        if (Math.hypot(a1, b1) > 0.05) expect(a * b1 - b * a1).to.be.closeTo(0, 0.004);
      }),
    );
  });

  it('changes constants and all stops of ramps, and leaves what is no colour of the coat as it is', () => {
    const coat = newCoat({
      outputs: [
        newOutput('constant', { colour: '#806040' }),
        newOutput('ramp', {
          stops: [
            { at: 0, colour: '#202020', value: 0 },
            { at: 1, colour: '#e0e0e0', value: 1 },
          ],
        }),
        newOutput('line', { line: 'moss' }),
        newOutput('constant', { channel: 'roughness', colour: '#806040' }),
      ],
    });
    expect(coloursOfCoat(coat)).to.deep.equal(['#806040', '#202020', '#e0e0e0']);
    const blue = recoloured(coat, '#3050c0');
    const found = coloursOfCoat(blue);
    for (const one of found) expect(labOf(one)[2]).to.be.below(-0.02);
    expect(blue.outputs.slice(2)).to.deep.equal(coat.outputs.slice(2));
  });
});
