import { type Team, TORUS } from '@zesty-tile/core';
import { expect } from 'chai';
import { visibility } from '../../core/src/stations/relief/occlusion.ts';
import { threads } from '../src/team.ts';

/** Until all of a team can be asked. */
async function ready(team: Team, size: number): Promise<void> {
  while (team.size < size) await new Promise((resolve) => setImmediate(resolve));
}

describe('threads of this machine', () => {
  it('make the same occlusion as one, to the bit, and end when they are let go', async () => {
    const size = 64;
    const field = Float32Array.from(
      { length: size * size },
      (_, i) => 5 * Math.sin(i * 12.9) * Math.cos(i / 9),
    );
    const alone = await visibility(field, size, 20, TORUS, async () => {});
    const team = threads(2);
    try {
      await ready(team, 3);
      const together = await visibility(field, size, 20, TORUS, async () => {}, 0, team);
      expect([...together]).to.deep.equal([...alone]);
    } finally {
      await team.end();
    }
    // Nobody is left, so this thread does it by itself.
    expect(team.size).to.equal(1);
    expect([...(await visibility(field, size, 20, TORUS, async () => {}, 0, team))]).to.deep.equal([
      ...alone,
    ]);
  });
});
