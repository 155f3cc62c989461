import { gaussian, MIRROR, TORUS } from '@zesty-tile/core';
import { expect } from 'chai';
import { blurPlanes } from '../../src/filters/blur-planes.ts';
import { PLAIN_CONTEXT } from '../../src/team/context.ts';
import { ALONE } from '../../src/team/team.ts';
import { noisePlane } from '../fields.ts';

describe('blurs of several planes', () => {
  for (const edges of [TORUS, MIRROR]) {
    it(`are those of each plane to the last bit, in any number of parts (${edges.x})`, async () => {
      const [width, height] = [160, 224];
      const planes = [1, 2].map((of) => noisePlane(width * height, of));
      const blurs = [0, 1.4, 5, 30].flatMap((sigma) => planes.map((plane) => ({ plane, sigma })));
      for (const size of [1, 2, 5]) {
        const context = { ...PLAIN_CONTEXT, team: { ...ALONE, size } };
        const made = await blurPlanes(blurs, { width, height, edges }, context);
        for (const [k, { plane, sigma }] of blurs.entries()) {
          expect(made[k]).to.deep.equal(gaussian(plane, width, height, sigma, edges));
        }
      }
    });
  }
});
