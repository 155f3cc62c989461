import { Engine, newRecipe } from '@zesty-tile/core';
import { expect } from 'chai';
import { proposeLevel } from '../../src/setup/level.ts';
import { SetupScene } from '../../src/setup/scene.ts';
import { hostOf, pixelsOf } from '../engine/host.ts';
import { MADE_SOURCES, photographed } from './sources.ts';

async function levelOf(kind: string, turnDegrees: number) {
  const picture = photographed({ ...MADE_SOURCES[kind], turnDegrees });
  const engine = new Engine(hostOf(pixelsOf(picture)), 200e6);
  const source = { sha256: '7'.repeat(64), width: picture.width, height: picture.height };
  return proposeLevel(new SetupScene(engine, newRecipe(), source));
}

describe('proposing to level the crop', () => {
  for (const degrees of [-4, 1.2, 3]) {
    it(`finds tiles turned by ${degrees}°`, async () => {
      const [proposal] = await levelOf('floor tiles turned by 2°', degrees);
      expect(proposal.settings).to.have.length(1);
      expect(proposal.settings[0].key).to.equal('turnDegrees');
      expect(Math.abs(proposal.settings[0].after as number)).to.be.closeTo(Math.abs(degrees), 0.2);
    });
  }

  it('leaves alone what is level, and what has no lines', async () => {
    expect(await levelOf('floor tiles turned by 2°', 0)).to.deep.equal([]);
    expect(await levelOf('fine sand', 3)).to.deep.equal([]);
    expect(await levelOf('gravel', 3)).to.deep.equal([]);
  });
});
