import { defaultsOf, Raster, STATIONS } from '@zesty-tile/core';
import { expect } from 'chai';
import { attempt, scoreOf } from '../../../src/stations/join/attempt.ts';
import { type Proposal, propose } from '../../../src/stations/join/propose.ts';
import { PLAIN_CONTEXT, type WorkContext } from '../../../src/team/context.ts';
import { tilingPicture } from '../../fields.ts';
import { crests, grain, wall } from './surfaces.ts';

const SIZE = 256;
const FRAME = { size: SIZE, width: SIZE, height: SIZE, shape: '1:1' as const };
const MARGIN = 32;
const chosen = defaultsOf(STATIONS.join.settings);

const inputOf = (picture: Raster) => ({
  square: {
    picture,
    alpha: null,
    given: {},
    margins: { left: MARGIN, right: MARGIN, top: MARGIN, bottom: MARGIN },
    cropPixels: SIZE,
    outside: 0,
  },
  even: { picture },
});

/** What is found on the way is kept, as the engine does. */
function keeping(): WorkContext {
  const kept = new Map<string, unknown>();
  return {
    ...PLAIN_CONTEXT,
    async part(name, dependsOn, make) {
      const key = `${name} ${JSON.stringify(dependsOn)}`;
      if (!kept.has(key)) kept.set(key, await make());
      return kept.get(key) as Awaited<ReturnType<typeof make>>;
    },
  };
}

const proposed = (picture: Raster) => propose(inputOf(picture), FRAME, chosen, keeping());

const whole = SIZE + 2 * MARGIN;
const points = (all: Proposal[], method: string) =>
  Math.min(...all.filter((one) => one.method === method).map(({ score }) => score.score));

describe('the score of a seam', () => {
  it('is low where the tile meets itself and high where it does not', async () => {
    const tiling = tilingPicture(SIZE);
    const context = keeping();
    // The same picture goes on round the crop, so that it has margins.
    const round = new Raster(
      whole,
      whole,
      tiling.planes.map((plane) =>
        Float32Array.from({ length: whole * whole }, (_, i) => {
          const x = ((i % whole) - MARGIN + SIZE) % SIZE;
          const y = (Math.floor(i / whole) - MARGIN + SIZE) % SIZE;
          return plane[y * SIZE + x];
        }),
      ),
    );
    const none = { ...chosen, method: 'none' as const };
    const tile = await attempt(inputOf(round), FRAME, none, context);
    const met = await scoreOf(tile, inputOf(round), FRAME, 'both', context.checkpoint);
    expect(met.score).to.be.below(0.1);
    const rows = crests(whole, whole, 41);
    const broken = await scoreOf(
      await attempt(inputOf(rows), FRAME, none, keeping()),
      inputOf(rows),
      FRAME,
      'both',
      context.checkpoint,
    );
    expect(broken.score).to.be.above(1);
    const worst = broken.spots.reduce((a, b) => (b.unlike > a.unlike ? b : a));
    expect(Math.min(worst.x, 1 - worst.x, worst.y, 1 - worst.y)).to.be.below(0.02);
  });
});

describe('what is proposed', () => {
  it('for a wall is whole blocks, hidden on every figure', async () => {
    const {
      proposals: all,
      best,
      reason,
    } = await proposed(wall(whole, { across: 50, down: 25, turnDegrees: 0, bond: true, even: true }));
    expect(best.made.from.by).to.equal('lattice');
    expect(best.made.from.vectors.u[0] * SIZE).to.be.closeTo(250, 1.5);
    expect(best.made.from.vectors.v[1] * SIZE).to.be.closeTo(250, 1.5);
    expect(best.score.score).to.be.below(0.6 * points(all, 'none'));
    expect(Math.max(...Object.values(best.seams))).to.be.at.most(1);
    expect(reason).to.match(/whole periods|No method scores well/);
  });

  it('for crests that do not meet is to bend them together, clearly better than the cut', async () => {
    const { proposals: all, best } = await proposed(crests(whole, whole, 41));
    expect(best.method).to.equal('meet');
    expect(points(all, 'meet')).to.be.below(0.6 * points(all, 'cut'));
  });

  it('never crossfades what has structure, and never leaves an open edge', async () => {
    const { proposals: all, best } = await proposed(
      wall(whole, { across: 50, down: 25, turnDegrees: 0, even: true }),
    );
    expect(points(all, 'mix')).to.be.above(points(all, 'cut') + 0.2);
    expect(best.method).to.not.equal('none');
  });

  it('says so where no way wins: two surfaces in one crop', async () => {
    const left = grain(whole);
    const right = wall(whole, { across: 37, down: 23, turnDegrees: 8, even: true });
    const halves = left.mapPlanes((plane, c) =>
      plane.map((v, i) => (i % whole < 0.55 * whole ? 0.4 * v : right.planes[c][i])),
    );
    const { reason } = await proposed(halves);
    expect(reason).to.match(/No method scores well.*crop to a uniform area/);
  });

  it('for fine grain is anything that hides it, told by its figures', async () => {
    const { best } = await proposed(grain(whole));
    expect(best.score.score).to.be.below(0.1);
    expect(Math.max(best.seams.seamX, best.seams.seamY)).to.be.at.most(1.05);
  });
});
